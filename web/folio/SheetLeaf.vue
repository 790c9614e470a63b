<script setup lang="ts">
import { columnName, pieces, type LeafOf } from '#core/folio';
import type { CellsAnchor } from '#core/anchor';
import { mdiFunctionVariant } from '@mdi/js';
import { useEventListener } from '@vueuse/core';
import { computed, shallowRef } from 'vue';
import { useFolio } from './folio-context.ts';
import PieceText from './PieceText.vue';

/** A table of values. Cells are chosen by dragging, or with the arrow keys. */
const props = defineProps<{ leaf: LeafOf<'sheet'>; index: number }>();

const folio = useFolio();
const from = shallowRef<{ row: number; column: number }>();
const dragging = shallowRef(false);
const formulas = shallowRef(false);
const hasFormulas = computed(() => props.leaf.rows.some((row) => row.some(({ formula }) => formula !== undefined)));

const starts = computed(() => {
  let at = props.leaf.start;
  return props.leaf.rows.map((row) =>
    row.map(({ text }) => {
      const start = at;
      at += text.length + 1;
      return start;
    }),
  );
});
const target = computed(() =>
  folio.target?.type === 'cells' && folio.target.leaf === props.index ? folio.target : undefined,
);
const marks = computed(() =>
  folio.marks.flatMap((mark) =>
    mark.anchor.type === 'cells' && mark.anchor.leaf === props.index ? [{ ...mark, anchor: mark.anchor }] : [],
  ),
);
const covers = ({ top, left, bottom, right }: CellsAnchor, row: number, column: number): boolean =>
  row >= top && row <= bottom && column >= left && column <= right;
const marksOn = (row: number, column: number) => marks.value.filter(({ anchor }) => covers(anchor, row, column));
const shown = (row: number, column: number) => {
  const there = marksOn(row, column);
  return there.find(({ id }) => id === folio.focused) ?? there.at(-1);
};
/** A cell draws the edges of its range only. */
const edges = (row: number, column: number): string[] => {
  const anchor = shown(row, column)?.anchor;
  if (!anchor) return [];
  return [
    ...(row === anchor.top ? ['top'] : []),
    ...(row === anchor.bottom ? ['bottom'] : []),
    ...(column === anchor.left ? ['left'] : []),
    ...(column === anchor.right ? ['right'] : []),
  ];
};

function choose(row: number, column: number, extend: boolean): void {
  if (!extend || !from.value) from.value = { row, column };
  const { row: top, column: left } = from.value;
  folio.choose({
    type: 'cells',
    leaf: props.index,
    top: Math.min(top, row),
    bottom: Math.max(top, row),
    left: Math.min(left, column),
    right: Math.max(left, column),
  });
}

function press(event: PointerEvent, row: number, column: number): void {
  const mark = shown(row, column);
  if (mark && !event.shiftKey) folio.pick(mark.id);
  if (!folio.choosing || event.button !== 0) return;
  dragging.value = true;
  choose(row, column, event.shiftKey);
}

function step(event: KeyboardEvent, row: number, column: number): void {
  const [down, right] =
    { ArrowDown: [1, 0], ArrowUp: [-1, 0], ArrowRight: [0, 1], ArrowLeft: [0, -1] }[event.key] ?? [];
  if (down === undefined || right === undefined) return;
  event.preventDefault();
  event.stopPropagation();
  const [nextRow, nextColumn] = [row + down, column + right];
  const cell = (event.currentTarget as Element)
    .closest('table')
    ?.querySelector<HTMLElement>(`[data-cell="${nextRow} ${nextColumn}"]`);
  if (!cell) return;
  cell.focus();
  if (folio.choosing) choose(nextRow, nextColumn, event.shiftKey);
}

useEventListener(window, 'pointerup', () => (dragging.value = false));
</script>

<template>
  <div class="paper">
    <p class="name" :data-name="leaf.label" />
    <v-btn
      v-if="hasFormulas"
      size="small"
      :variant="formulas ? 'tonal' : 'text'"
      :prepend-icon="mdiFunctionVariant"
      :aria-pressed="formulas"
      @click="formulas = !formulas"
      >Show formulas</v-btn
    >
    <table role="grid">
      <thead>
        <tr>
          <td />
          <th v-for="(_, column) in leaf.rows[0]" :key="column" :data-name="columnName(column)" />
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, rowIndex) in leaf.rows" :key="rowIndex">
          <th :data-name="rowIndex + 1" />
          <td
            v-for="(cell, column) in row"
            :key="column"
            role="gridcell"
            :tabindex="rowIndex === 0 && column === 0 ? 0 : -1"
            :data-cell="`${rowIndex} ${column}`"
            :data-formula="(formulas && cell.formula) || undefined"
            :data-remarks="
              marksOn(rowIndex, column)
                .map(({ id }) => id)
                .join(' ') || undefined
            "
            :aria-selected="target ? covers(target, rowIndex, column) : undefined"
            :class="[
              { number: /^[-+]?[\d.,]+%?$/.test(cell.text), chosen: target && covers(target, rowIndex, column) },
              shown(rowIndex, column) && [
                'marked',
                `kind-${shown(rowIndex, column)!.kind}`,
                { focused: shown(rowIndex, column)!.id === folio.focused },
              ],
              edges(rowIndex, column),
            ]"
            @pointerdown="press($event, rowIndex, column)"
            @pointerenter="dragging && choose(rowIndex, column, true)"
            @keydown="step($event, rowIndex, column)"
          >
            <PieceText
              v-for="piece in pieces([{ text: cell.text, marks: [] }], starts[rowIndex]![column]!, folio.cuts)"
              :key="piece.start"
              :piece="piece"
            />
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.paper {
  padding: 16px;
  overflow-x: auto;
  background: var(--paper);
  border: 1px solid var(--hairline);
}
.name::before {
  content: attr(data-name);
  color: var(--quiet);
  font: 14px var(--sans);
}
.v-btn {
  margin-left: 8px;
  font-family: var(--sans);
}
.name {
  display: inline;
}
table {
  margin-top: 8px;
  border-collapse: collapse;
  font: calc(14px * var(--text-zoom)) / 1.4 var(--sans);
  user-select: none;
}
th {
  color: var(--quiet);
  font-weight: 400;
  font-size: 0.85em;
}
th::before {
  content: attr(data-name);
}
td,
th {
  min-width: 2.5em;
  padding: 5px 9px;
  border: 1px solid var(--hairline);
  text-align: start;
  vertical-align: top;
}
thead td {
  border: 0;
}
td.number {
  text-align: end;
  font-variant-numeric: tabular-nums;
}
/* A formula is drawn below its value: what is selected and quoted stays the value. */
td[data-formula]::after {
  content: attr(data-formula);
  display: block;
  max-width: 32ch;
  color: var(--quiet);
  font:
    12px / 1.35 ui-monospace,
    'DejaVu Sans Mono',
    Menlo,
    Consolas,
    monospace;
  text-align: start;
  overflow-wrap: anywhere;
}
td.chosen {
  background: color-mix(in srgb, var(--ink) 14%, transparent);
}
td.marked {
  background: color-mix(in srgb, var(--kind) 9%, transparent);
  cursor: pointer;
}
td.marked.focused {
  background: color-mix(in srgb, var(--kind) 24%, transparent);
}
td.top {
  border-top: 3px var(--kind-border) var(--kind);
}
td.bottom {
  border-bottom: 3px var(--kind-border) var(--kind);
}
td.left {
  border-left: 3px var(--kind-border) var(--kind);
}
td.right {
  border-right: 3px var(--kind-border) var(--kind);
}
</style>
