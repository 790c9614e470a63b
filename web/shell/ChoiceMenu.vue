<script setup lang="ts">
import { mdiChevronDown } from '@mdi/js';
import { computed } from 'vue';
import LateMenu from './LateMenu.vue';

/** One of several, as a button that says which. For places where every kilobyte counts; elsewhere `v-select`. */
const props = defineProps<{ label: string; choices: readonly { title: string; value: string }[] }>();
const picked = defineModel<string>({ required: true });

const now = computed(() => props.choices.find(({ value }) => value === picked.value)?.title ?? '');
const entries = computed(() =>
  props.choices.map(({ title, value }) => ({
    title,
    active: value === picked.value,
    run: () => void (picked.value = value),
  })),
);
</script>

<template>
  <LateMenu v-slot="{ attributes }" :entries="entries">
    <v-btn
      v-bind="attributes"
      size="x-small"
      variant="outlined"
      class="choice"
      :append-icon="mdiChevronDown"
      :aria-label="`${label}: ${now}`"
      >{{ now }}</v-btn
    >
  </LateMenu>
</template>

<style scoped>
.choice {
  max-width: 190px;
  min-width: 0;
  padding-inline: 7px 2px;
  font-size: 13px;
  font-weight: 400;
  background: var(--paper);
  border-color: var(--hairline);
  border-radius: 13px;
}
.choice :deep(.v-btn__content) {
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
