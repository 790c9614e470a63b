<script setup lang="ts">
import { computed } from 'vue';
import { languageName } from '../wording/format.ts';

/** A choice among languages. */
const props = defineProps<{
  label: string;
  languages: readonly string[];
  /** What stands for none of them. */
  none?: string;
}>();
const picked = defineModel<string>({ required: true });

const items = computed(() => [
  ...(props.none === undefined ? [] : [{ title: props.none, value: '' }]),
  ...props.languages.map((language) => ({ title: languageName(language), value: language })),
]);
</script>

<template>
  <v-select v-model="picked" :label="label" :items="items" />
</template>
