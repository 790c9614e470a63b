<script setup lang="ts">
import type { GradeCell } from '#contract/gradebook';
import { cellWords, type ShownAs } from './cell-words.ts';
import GradeBox from './GradeBox.vue';

/**
 * One cell of the grid. Its place is its own, whatever stands before it: a column that comes into sight moves no other, and only its
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
</script>

<template>
  <div
    class="column"
    :class="{ active, selected }"
    :style="{ left: `${start}px` }"
    role="gridcell"
    :aria-selected="selected"
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
    <template v-else>
      <span class="visually-hidden">{{ name }}, {{ title }}: {{ cellWords(cell ?? undefined) }}</span>
      <GradeBox :cell="cell" :as="as" />
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
</style>
