<script setup lang="ts">
import { mdiAccountCircleOutline, mdiBellOutline, mdiBookOpenPageVariantOutline, mdiChevronDown } from '@mdi/js';
import GoMenu from './GoMenu.vue';
import LateMenu from './LateMenu.vue';
import OutboxState from './OutboxState.vue';
import { useShell } from './use-shell.ts';

/** The head of every page: what waits, courses, find, and the person's own menu. On a phone all of it is one button. */
const { name, places, courses, own, unseen } = useShell();
</script>

<template>
  <header class="head">
    <GoMenu class="narrow" />
    <router-link class="mark" :to="{ name: 'home' }">Vivid Margin</router-link>
    <nav v-if="name" class="wide" aria-label="Main">
      <v-btn
        v-for="{ title, icon, to } in [...places, ...(courses.length === 1 ? courses : [])]"
        :key="title"
        size="small"
        v-bind="{ ...(to && { to }), ...(icon && { prependIcon: icon }) }"
        exact
        >{{ title }}</v-btn
      >
      <LateMenu v-if="courses.length > 1" v-slot="{ attributes }" :entries="courses">
        <v-btn
          v-bind="attributes"
          size="small"
          :prepend-icon="mdiBookOpenPageVariantOutline"
          :append-icon="mdiChevronDown"
          >Courses</v-btn
        >
      </LateMenu>
    </nav>
    <OutboxState class="saved" />
    <v-btn
      v-if="unseen > 0"
      size="small"
      class="figures"
      :prepend-icon="mdiBellOutline"
      :to="{ name: 'notices' }"
      :aria-label="`${unseen} new notices`"
      >{{ unseen }}</v-btn
    >
    <LateMenu v-if="name" v-slot="{ attributes }" class="wide" :entries="own">
      <v-btn v-bind="attributes" size="small" :prepend-icon="mdiAccountCircleOutline" :append-icon="mdiChevronDown">{{
        name
      }}</v-btn>
    </LateMenu>
  </header>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 8px 16px;
  min-height: 48px;
  padding: 0 24px;
  border-bottom: 1px solid var(--hairline);
}
.head :deep(.v-btn) {
  font-size: 15px;
}
nav {
  display: flex;
  align-items: center;
}
.mark {
  font-weight: 650;
  text-decoration: none;
  white-space: nowrap;
}
.saved {
  margin-left: auto;
}
.narrow {
  display: none;
}
@media (max-width: 860px) {
  .head {
    padding: 0 12px;
  }
  .wide {
    display: none;
  }
  .narrow {
    display: inline-flex;
  }
}
</style>
