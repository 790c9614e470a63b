<script setup lang="ts">
import type { MenuEntry } from './menu-entry.ts';

/** The list that opens under a button. */
defineProps<{ entries: readonly MenuEntry[]; target: HTMLElement }>();
const open = defineModel<boolean>({ required: true });
</script>

<template>
  <!-- While it is open the page behind it stands still: the list would follow it, away from under a press. -->
  <v-menu v-model="open" :activator="target" :open-on-click="false">
    <v-list class="list" role="menu">
      <template v-for="{ title, subtitle, icon, to, run, active, heading } in entries" :key="title">
        <v-list-subheader v-if="heading">{{ title }}</v-list-subheader>
        <v-list-item
          v-else
          role="menuitem"
          :title="title"
          v-bind="{
            ...(subtitle && { subtitle }),
            ...(icon && { prependIcon: icon }),
            ...(to && { to }),
            ...(active !== undefined && { active }),
          }"
          @click="run?.()"
        />
      </template>
    </v-list>
  </v-menu>
</template>

<style scoped>
.list {
  min-width: 200px;
  max-height: 60vh;
}
</style>
