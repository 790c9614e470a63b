<script setup lang="ts">
import { computed } from 'vue';
import ChoiceMenu from '../shell/ChoiceMenu.vue';
import { useMarginKey } from '../feedback/margin-key.ts';
import type { MarginFilter } from './use-margin-filter.ts';

/** At the head of the margin: the kinds that are there, each to be shown or not; and whose remarks. */
const props = defineProps<{ filter: MarginFilter }>();

const margin = useMarginKey();
const kinds = computed(() => margin.key.value.filter(({ kind }) => props.filter.counts.value.has(kind)));
const total = computed(() => [...props.filter.counts.value.values()].reduce((sum, count) => sum + count, 0));
const { author, tag } = props.filter;
const worthIt = computed(() => total.value > 1);
</script>

<template>
  <div v-if="worthIt" class="filter" role="group" aria-label="Remarks shown">
    <button
      v-for="{ kind, name, glyph } in kinds"
      :key="kind"
      type="button"
      :class="`kind-${kind}`"
      :aria-pressed="!filter.hidden.value.has(kind)"
      :aria-label="`${name}: ${filter.counts.value.get(kind)}`"
      :title="name"
      @click="filter.toggle(kind)"
    >
      <span aria-hidden="true">{{ glyph }} {{ filter.counts.value.get(kind) }}</span>
    </button>
    <ChoiceMenu
      v-if="filter.authors.value.length > 1"
      v-model="author"
      label="Whose remarks"
      :choices="[
        { title: 'everybody’s', value: '' },
        ...filter.authors.value.map(({ id, name }) => ({ title: name, value: id })),
      ]"
    />
    <ChoiceMenu
      v-if="filter.tags.value.length > 0"
      v-model="tag"
      label="Remarks with a tag"
      :choices="[{ title: 'all tags', value: '' }, ...filter.tags.value.map((one) => ({ title: one, value: one }))]"
    />
    <p v-if="filter.active.value" class="some" role="status">
      {{ filter.shown.value.length }} of {{ total }} shown.
      <button type="button" class="all" @click="filter.clear()">Show all</button>
    </p>
  </div>
</template>

<style scoped>
.filter {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px;
  margin-bottom: 10px;
}
.filter > button {
  min-width: 40px;
  min-height: 26px;
  padding: 0 8px;
  color: var(--kind);
  font-weight: 600;
  font-size: 13px;
  background: var(--paper);
  border: 1px solid var(--hairline);
  border-radius: 13px;
}
.filter > button[aria-pressed='false'] {
  color: var(--quiet);
  text-decoration: line-through;
  border-style: dashed;
}
.some {
  width: 100%;
  color: var(--quiet);
  font-size: 13px;
}
.all {
  text-decoration: underline;
}
</style>
