<script setup lang="ts">
import { computed, defineAsyncComponent, ref, useTemplateRef } from 'vue';
import type { MenuEntry } from './menu-entry.ts';

/** A button that opens a menu. What the menu is drawn with is loaded when one is opened for the first time. */
defineProps<{ entries: readonly MenuEntry[] }>();

const MenuList = defineAsyncComponent(() => import('./MenuList.vue'));

const holder = useTemplateRef('holder');
const target = computed(() => (wanted.value ? (holder.value?.firstElementChild as HTMLElement | null) : null));
const wanted = ref(false);
const open = ref(false);

function toggle(): void {
  wanted.value = true;
  open.value = !open.value;
}
</script>

<template>
  <span ref="holder" class="holder">
    <slot :attributes="{ 'aria-haspopup': 'menu' as const, 'aria-expanded': open, onClick: toggle }" />
    <MenuList v-if="target" v-model="open" :target="target" :entries="entries" />
  </span>
</template>

<style scoped>
.holder {
  display: inline-flex;
  min-width: 0;
}
</style>
