<script setup lang="ts">
import { NO_TERM } from '#core/gradebook';
import type { Gradebook } from '#contract/gradebook';
import { computed } from 'vue';
import type { ShownAs } from './cell-words.ts';
import type { Shown } from './use-shown.ts';

/** What of the gradebook is shown. */
const props = defineProps<{ book: Gradebook; shown: Shown }>();
const as = defineModel<ShownAs>('as', { required: true });

const { filter, hidden, showAll } = props.shown;
const anyLeft = computed(() => props.book.rows.some(({ left }) => left));
const terms = computed(() => [
  { title: 'all terms', value: '' },
  ...props.book.terms.map((term) => ({ title: term, value: term })),
  ...(props.book.columns.some(({ term }) => term === null) ? [{ title: 'in no term', value: NO_TERM }] : []),
]);
const categories = computed(() => {
  const names = [...new Set(props.book.columns.map(({ category }) => category))].sort();
  return [
    { title: 'all categories', value: null },
    ...names.map((name) => ({ title: name || 'no category', value: name })),
  ];
});
const WAYS: { title: string; value: ShownAs }[] = [
  { title: 'points', value: 'points' },
  { title: 'per cent', value: 'percent' },
  { title: 'level', value: 'level' },
];
</script>

<template>
  <div class="bar" role="search" aria-label="What of the gradebook is shown">
    <v-text-field
      v-model="filter.search"
      class="search"
      density="compact"
      hide-details
      label="Find a student"
      clearable
      @click:clear="filter.search = ''"
    />
    <v-select v-if="terms.length > 1" v-model="filter.term" class="small" label="Term" :items="terms" />
    <v-select
      v-if="categories.length > 2"
      v-model="filter.category"
      class="small"
      label="Category"
      :items="categories"
    />
    <v-text-field v-model="filter.from" class="day" density="compact" hide-details type="date" label="Due from" />
    <v-text-field v-model="filter.to" class="day" density="compact" hide-details type="date" label="Due until" />
    <v-select v-model="as" class="small" label="Shown as" :items="WAYS" />
    <v-checkbox v-if="anyLeft" v-model="filter.left" label="Also who has left" />
  </div>
  <p v-if="hidden" class="notice" role="status">
    {{ hidden }}
    <v-btn size="small" variant="outlined" @click="showAll">Show all assignments</v-btn>
  </p>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.bar :deep(.v-input) {
  flex: 0 1 150px;
}
.bar .search {
  flex: 0 1 200px;
}
.notice {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 6px 10px;
  background: var(--paper);
  border: 1px dashed var(--ink);
  border-radius: 4px;
}
</style>
