<script setup lang="ts">
import { formatHundredths, statisticsOf, type CourseGrade } from '#core/grading';
import type { GradeRow } from '#contract/gradebook';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, nextTick, onMounted, ref, watch } from 'vue';
import { cellWords, type ShownAs } from './cell-words.ts';
import ColumnMenu from './ColumnMenu.vue';
import GradeBox from './GradeBox.vue';
import { COURSE_COLUMN, type At, type Grid } from './use-grid.ts';
import type { Shown, ShownColumn } from './use-shown.ts';

/** Students and their results, of which only those in sight are drawn. */
const props = defineProps<{ shown: Shown; grid: Grid; as: ShownAs; title: string; focused?: boolean }>();
const emit = defineEmits<{ open: [at: At]; pageRows: [count: number] }>();

const ROW = 42;
const HEAD = 64;
const NAME = 190;
const COURSE = 96;
const COLUMN = 104;

const scroller = ref<HTMLElement>();
const { columns, rows, order, gradeOf } = props.shown;
const { active, editing } = props.grid;

const down = useVirtualizer(
  computed(() => ({
    count: rows.value.length,
    getScrollElement: () => scroller.value ?? null,
    estimateSize: () => ROW,
    overscan: 4,
    scrollPaddingStart: HEAD,
    scrollPaddingEnd: ROW,
  })),
);
const across = useVirtualizer(
  computed(() => ({
    horizontal: true,
    count: columns.value.length,
    getScrollElement: () => scroller.value ?? null,
    estimateSize: () => COLUMN,
    overscan: 2,
    scrollPaddingStart: NAME + COURSE,
  })),
);
const seenRows = computed(() => down.value.getVirtualItems());
const seenColumns = computed(() =>
  across.value.getVirtualItems().map(({ index }) => ({ index, column: columns.value[index]! })),
);
const before = computed(() => `${across.value.getVirtualItems()[0]?.start ?? 0}px`);
const width = computed(() => `${NAME + COURSE + across.value.getTotalSize()}px`);

const idOf = ({ row, column }: At): string => `grade-${row}-${column}`;
const isActive = (row: number, column: number): boolean => active.value.row === row && active.value.column === column;

/** What is active is in sight. */
watch(
  active,
  async ({ row, column }) => {
    await nextTick();
    down.value.scrollToIndex(row);
    if (column >= 0) across.value.scrollToIndex(column);
  },
  { flush: 'post' },
);
watch(editing, async (now, was) => {
  await nextTick();
  if (now !== undefined && was === undefined) scroller.value?.querySelector<HTMLInputElement>('.edit')?.focus();
  else if (now === undefined) scroller.value?.focus();
});
onMounted(() => {
  if (props.focused) scroller.value!.focus();
  emit('pageRows', Math.max(1, Math.floor((scroller.value!.clientHeight - HEAD - ROW) / ROW) - 1));
  if (active.value.row > 0) down.value.scrollToIndex(active.value.row, { align: 'center' });
  if (active.value.column > 0) across.value.scrollToIndex(active.value.column);
});

function sortBy(by: string): void {
  order.value = { by, down: order.value.by === by ? !order.value.down : by !== 'name' };
}
const sorted = (by: string): 'ascending' | 'descending' | 'none' =>
  order.value.by !== by ? 'none' : order.value.down ? 'descending' : 'ascending';
const arrow = (by: string): string => ({ ascending: '↑', descending: '↓', none: '' })[sorted(by)];

const courseWords = ({ percentage, grade }: CourseGrade): string =>
  percentage === null ? '' : (grade ?? `${formatHundredths(percentage)} %`);
const percentWords = ({ percentage, grade }: CourseGrade): string =>
  percentage === null || grade === null ? '' : `${formatHundredths(percentage)} %`;

/** The mean of a column, of those who have a result. */
function meanOf({ at, possible }: ShownColumn, all: readonly GradeRow[]): string {
  const { n, mean } = statisticsOf(all.flatMap(({ cells }) => cells[at]?.points ?? []));
  if (mean === null) return '';
  const value =
    props.as === 'percent' && possible ? `${((mean / possible) * 100).toFixed(1)} %` : (mean / 100).toFixed(1);
  return `${value} · ${n}`;
}
const courseMean = computed(() => {
  const { n, mean } = statisticsOf(rows.value.flatMap((row) => gradeOf(row).percentage ?? []));
  return mean === null ? '' : `${(mean / 100).toFixed(1)} % · ${n}`;
});

function press(at: At, event: MouseEvent): void {
  if (isActive(at.row, at.column) && editing.value !== undefined) return;
  if (!props.grid.commit()) return;
  props.grid.select(at, event.shiftKey);
  scroller.value?.focus();
}
/** A press goes on as a selection of several. */
function drag(at: At, event: PointerEvent): void {
  if (event.buttons === 1 && event.pointerType === 'mouse' && editing.value === undefined) props.grid.select(at, true);
}
</script>

<template>
  <div
    ref="scroller"
    class="grid"
    role="grid"
    tabindex="0"
    :aria-label="title"
    :aria-rowcount="rows.length + 2"
    :aria-colcount="columns.length + 2"
    :aria-activedescendant="rows.length > 0 ? idOf(active) : undefined"
    aria-multiselectable="true"
    @keydown="grid.keydown"
    @copy="grid.copy"
    @paste="grid.paste"
  >
    <div class="row head" role="row" aria-rowindex="1" :style="{ width }">
      <div class="name" role="columnheader" aria-colindex="1" :aria-sort="sorted('name')">
        <button type="button" @click="sortBy('name')">Student {{ arrow('name') }}</button>
      </div>
      <div class="course" role="columnheader" aria-colindex="2" :aria-sort="sorted('course')">
        <button type="button" @click="sortBy('course')">Course {{ arrow('course') }}</button>
      </div>
      <div class="before" role="presentation" :style="{ width: before }"></div>
      <div
        v-for="{ index, column } in seenColumns"
        :key="column.id"
        class="column"
        role="columnheader"
        :aria-colindex="index + 3"
        :aria-sort="sorted(column.id)"
      >
        <ColumnMenu :column="column" :rows="rows" :grid="grid" :arrow="arrow(column.id)" @sort="sortBy(column.id)" />
      </div>
    </div>
    <div class="body" role="presentation" :style="{ width, height: `${down.getTotalSize()}px` }">
      <div
        v-for="{ index: row, start } in seenRows"
        :key="rows[row]!.id"
        class="row"
        role="row"
        :aria-rowindex="row + 2"
        :style="{ width, transform: `translateY(${start}px)` }"
      >
        <div class="name" role="rowheader" aria-colindex="1">
          {{ rows[row]!.name }}<span v-if="rows[row]!.left" class="quiet"> has left</span>
        </div>
        <div
          :id="idOf({ row, column: COURSE_COLUMN })"
          class="course"
          :class="{ active: isActive(row, COURSE_COLUMN) }"
          role="gridcell"
          aria-colindex="2"
          @mousedown.prevent="press({ row, column: COURSE_COLUMN }, $event)"
        >
          <span class="grade">{{ courseWords(gradeOf(rows[row]!)) }}</span>
          <span class="quiet figures">{{ percentWords(gradeOf(rows[row]!)) }}</span>
        </div>
        <div class="before" role="presentation" :style="{ width: before }"></div>
        <div
          v-for="{ index, column } in seenColumns"
          :id="idOf({ row, column: index })"
          :key="column.id"
          class="column"
          :class="{ active: isActive(row, index), selected: grid.isSelected({ row, column: index }) }"
          role="gridcell"
          :aria-colindex="index + 3"
          :aria-selected="grid.isSelected({ row, column: index })"
          :aria-label="`${rows[row]!.name}, ${column.title}: ${cellWords(rows[row]!.cells[column.at])}`"
          @mousedown.prevent="press({ row, column: index }, $event)"
          @pointerenter="drag({ row, column: index }, $event)"
          @dblclick="grid.edit()"
        >
          <input
            v-if="isActive(row, index) && editing !== undefined"
            v-model="editing"
            class="edit figures"
            inputmode="decimal"
            :aria-label="`Grade of ${rows[row]!.name} in ${column.title}`"
            @mousedown.stop
            @blur="grid.commit()"
          />
          <GradeBox v-else :cell="rows[row]!.cells[column.at] ?? null" :as="as" />
        </div>
      </div>
    </div>
    <div class="row foot" role="row" :aria-rowindex="rows.length + 2" :style="{ width }">
      <div class="name" role="rowheader" aria-colindex="1">Mean · how many</div>
      <div class="course figures" role="gridcell" aria-colindex="2">{{ courseMean }}</div>
      <div class="before" role="presentation" :style="{ width: before }"></div>
      <div
        v-for="{ index, column } in seenColumns"
        :key="column.id"
        class="column figures"
        role="gridcell"
        :aria-colindex="index + 3"
      >
        {{ meanOf(column, rows) }}
      </div>
    </div>
  </div>
</template>

<style scoped>
.grid {
  position: relative;
  flex: 1;
  min-height: 200px;
  overflow: auto;
  background: var(--paper);
  border: 1px solid var(--hairline);
  border-radius: 4px;
  overscroll-behavior: contain;
  contain: strict;
}
.body {
  position: relative;
}
.row {
  display: flex;
  height: 42px;
}
.body > .row {
  position: absolute;
  top: 0;
  left: 0;
}
.head {
  position: sticky;
  z-index: 3;
  top: 0;
  height: 64px;
  font-size: 13px;
}
.foot {
  position: sticky;
  z-index: 3;
  bottom: 0;
  color: var(--quiet);
  font-size: 13px;
}
.head > *,
.foot > * {
  background: var(--ground);
}
.name,
.course {
  position: sticky;
  z-index: 2;
  flex: none;
  display: flex;
  justify-content: center;
  flex-direction: column;
  padding: 0 10px;
  background: var(--paper);
  border-bottom: 1px solid var(--hairline);
}
.name {
  left: 0;
  width: 190px;
  overflow: hidden;
  line-height: 1.2;
}
.course {
  left: 190px;
  width: 96px;
  line-height: 1.25;
  border-right: 1px solid var(--hairline);
}
.grade {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
.before {
  flex: none;
}
.column {
  flex: none;
  width: 104px;
  padding: 4px 8px 0;
  border-right: 1px solid var(--hairline);
  border-bottom: 1px solid var(--hairline);
}
.head .column {
  padding: 0;
}
.foot .column {
  padding-top: 11px;
  text-align: end;
}
.selected {
  background: color-mix(in srgb, var(--ink) 8%, var(--paper));
}
.grid:focus-visible {
  outline-offset: -2px;
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
.quiet {
  color: var(--quiet);
  font-size: 12px;
}
</style>
