<script setup lang="ts">
import type { GradeCell } from '#contract/gradebook';
import { cellWords, isDraft, resultWords, signOf, type ShownAs } from './cell-words.ts';

/**
 * One cell of the grid: how far it is, the result or the flag, and what was spoken and heard. What it says is an attribute: words
 * that are hidden from sight would cost more to paint than all that is seen. Its place is its own, whatever stands before it: a column that comes into sight moves no other, and only its
 * cells are drawn.
 */
defineProps<{
  name: string;
  title: string;
  cell: GradeCell | null;
  as: ShownAs;
  /** Where its column begins, in CSS pixels. */
  start: number;
  active: boolean;
  selected: boolean;
}>();
const editing = defineModel<string | undefined>('editing');
// All that it tells is declared: a listener that is passed on would be another at each drawing of its row, and draw it, too.
defineEmits<{ commit: []; press: [event: MouseEvent]; drag: [event: PointerEvent] }>();

/** As many ticks for spoken remarks as there is room for. */
const MOST_TICKS = 6;
</script>

<template>
  <div
    class="column"
    :class="{ active, selected }"
    :style="{ left: `${start}px` }"
    role="gridcell"
    :aria-selected="selected"
    :aria-label="`${name}, ${title}: ${cellWords(cell)}`"
    @mousedown.prevent="$emit('press', $event)"
    @pointerenter="$emit('drag', $event)"
  >
    <input
      v-if="active && editing !== undefined"
      v-model="editing"
      class="edit figures"
      inputmode="decimal"
      :aria-label="`Grade of ${name} in ${title}`"
      @mousedown.stop
      @blur="$emit('commit')"
    />
    <template v-else-if="cell">
      <span class="line" aria-hidden="true">
        <span class="sign">{{ signOf(cell) }}</span>
        <span v-if="cell.nameless" class="flag">no names</span>
        <span v-else-if="cell.flag" class="flag">{{ cell.flag }}</span>
        <span v-else class="result" :class="{ draft: isDraft(cell) }">{{ resultWords(cell, as) }}</span>
      </span>
      <span
        v-if="cell.late || cell.again || cell.unanswered > 0 || cell.spoken > 0"
        class="below"
        :data-words="`${cell.again ? 'new version ' : cell.late ? 'late ' : ''}${cell.unanswered > 0 ? 'asks' : ''}`"
        aria-hidden="true"
      >
        <span
          v-for="tick in Math.min(cell.spoken, MOST_TICKS)"
          :key="tick"
          class="tick"
          :class="{ heard: tick <= cell.heard }"
        ></span>
      </span>
    </template>
  </div>
</template>

<style scoped>
.column {
  position: absolute;
  top: 0;
  contain: strict;
  width: 104px;
  height: 100%;
  padding: 4px 8px 0;
  border-right: 1px solid var(--hairline);
  border-bottom: 1px solid var(--hairline);
}
.selected {
  background: color-mix(in srgb, var(--ink) 8%, var(--paper));
}
.active {
  outline: 2px solid var(--ink);
  outline-offset: -2px;
}
.edit {
  width: 100%;
  height: 32px;
  padding: 0 2px;
  background: var(--paper);
  color: var(--ink);
  border: 0;
  font: inherit;
  text-align: end;
  outline: none;
}
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
  gap: 2px;
  justify-content: flex-end;
  align-items: center;
  height: 13px;
  color: var(--quiet);
  font-size: 11px;
  line-height: 1;
}
/* What is told in the cell's own words, in another order. */
.below::before {
  content: attr(data-words);
  margin-inline-end: 4px;
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
