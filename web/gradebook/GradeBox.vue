<script setup lang="ts">
import type { GradeCell } from '#contract/gradebook';
import { computed } from 'vue';
import { isDraft, resultWords, signOf, type ShownAs } from './cell-words.ts';

/** What stands in a cell: how far it is, the result or the flag, and what was spoken and heard. */
const props = defineProps<{ cell: GradeCell | null; as: ShownAs }>();

const MOST_TICKS = 6;
/** A tick for each spoken remark; those that were heard first. */
const ticks = computed(() => {
  const { spoken = 0, heard = 0 } = props.cell ?? {};
  return Array.from({ length: Math.min(spoken, MOST_TICKS) }, (_, index) => index < heard);
});
</script>

<template>
  <template v-if="cell">
    <span class="line" aria-hidden="true">
      <span class="sign">{{ signOf(cell) }}</span>
      <span v-if="cell.nameless" class="flag">no names</span>
      <span v-else-if="cell.flag" class="flag">{{ cell.flag }}</span>
      <span v-else class="result" :class="{ draft: isDraft(cell) }">{{ resultWords(cell, as) }}</span>
    </span>
    <span class="below" aria-hidden="true">
      <span v-if="cell.late">late</span>
      <span v-if="cell.unanswered > 0">asks</span>
      <span v-if="ticks.length > 0" class="ticks"
        ><span v-for="(heard, index) in ticks" :key="index" class="tick" :class="{ heard }"></span
      ></span>
    </span>
  </template>
</template>

<style scoped>
.line {
  display: flex;
  gap: 6px;
  justify-content: space-between;
  align-items: baseline;
}
.sign {
  color: var(--quiet);
  font-size: 12px;
}
.result {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  font-variant-numeric: tabular-nums;
}
/* Not told by colour: what is still a draft leans and is underlined, as in a manuscript. */
.draft {
  font-style: italic;
  text-decoration: underline dotted;
  text-underline-offset: 3px;
}
.flag {
  font-size: 12px;
}
.below {
  display: flex;
  gap: 6px;
  justify-content: flex-end;
  align-items: center;
  height: 13px;
  color: var(--quiet);
  font-size: 11px;
  line-height: 1;
}
.ticks {
  display: flex;
  gap: 2px;
}
.tick {
  width: 4px;
  height: 9px;
  border: 1px solid var(--quiet);
  border-radius: 1px;
}
.heard {
  background: var(--ink);
  border-color: var(--ink);
}
</style>
