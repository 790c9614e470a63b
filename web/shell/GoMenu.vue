<script setup lang="ts">
import { mdiMenu } from '@mdi/js';
import { computed } from 'vue';
import LateMenu from './LateMenu.vue';
import { useShell } from './use-shell.ts';

/** The way to everything in one button, where there is no room for a head. */
const { name, places, courses, own } = useShell();

const entries = computed(() => [
  ...places.value,
  ...(courses.value.length > 0 ? [{ title: 'Courses', heading: true as const }, ...courses.value] : []),
  { title: name.value ?? '', heading: true as const },
  ...own.value,
]);
</script>

<template>
  <LateMenu v-if="name" v-slot="{ attributes }" :entries="entries">
    <v-btn v-bind="attributes" :icon="mdiMenu" size="36" aria-label="Go to …" title="Go to …" />
  </LateMenu>
</template>
