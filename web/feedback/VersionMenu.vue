<script setup lang="ts">
import type { Work } from '#contract/submissions';
import { computed } from 'vue';
import { dayAndTime } from '../wording/time.ts';

/** Which version this is, and the way to the others. */
const props = defineProps<{ work: Work; route: 'desk' | 'returned' }>();

const newest = computed(() => props.work.versions[0]?.version ?? props.work.version);
const to = (submission: string) => ({ name: props.route, params: { submission } });
</script>

<template>
  <v-menu v-if="work.versions.length > 1">
    <template #activator="{ props: menu }">
      <button v-bind="menu" type="button" class="figures version" :class="{ old: work.version < newest }">
        version {{ work.version }} of {{ newest }}
      </button>
    </template>
    <v-list density="compact">
      <v-list-item
        v-for="one in work.versions"
        :key="one.id"
        :to="to(one.id)"
        :active="one.id === work.id"
        :title="`Version ${one.version}`"
        :subtitle="`handed in ${dayAndTime(one.handedInAt)}${one.returnedAt ? ', returned' : ''}`"
      />
    </v-list>
  </v-menu>
</template>

<style scoped>
.version {
  padding: 1px 8px;
  color: var(--quiet);
  font-size: 13px;
  border: 1px solid var(--hairline);
  border-radius: 10px;
  white-space: nowrap;
}
.old {
  color: var(--ink);
  border-style: dashed;
}
</style>
