<script setup lang="ts">
import { formatHundredths, statisticsOf, type CourseGrade } from '#core/grading';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, nextTick, onMounted, ref, shallowRef, watch } from 'vue';
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
const opened = shallowRef<{ column: ShownColumn; target: HTMLElement }>();
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
/*
 * A row that comes into sight takes the place of one that has left it: what is there is written anew, which is quicker than making
 * it. So rows and columns are known by their place in the window.
 */
const most = { down: 1, across: 1 };
function placesIn(way: keyof typeof most, items: readonly unknown[]): number {
  most[way] = Math.max(most[way], items.length);
  return most[way];
}
const seenRows = computed(() => {
  const items = down.value.getVirtualItems();
  const places = placesIn('down', items);
  return items.map(({ index, start }) => ({ index, start, place: index % places }));
});
let lastSeen: { index: number; column: ShownColumn; place: number }[] = [];
const seenColumns = computed(() => {
  const items = across.value.getVirtualItems();
  const places = placesIn('across', items);
  const now = items.map(({ index }) => ({ index, column: columns.value[index]!, place: index % places }));
  const same =
    now.length === lastSeen.length &&
    now.every(({ index, column, place }, at) => {
      const last = lastSeen[at]!;
      return last.index === index && last.column === column && last.place === place;
    });
  return same ? lastSeen : (lastSeen = now);
});
const before = computed(() => `${across.value.getVirtualItems()[0]?.start ?? 0}px`);
const width = computed(() => `${NAME + COURSE + across.value.getTotalSize()}px`);

const idOf = ({ row, column }: At): string => `grade-${row}-${column}`;
const isActive = (row: number, column: number): boolean => active.value.row === row && active.value.column === column;

function closeMenu(): void {
  opened.value?.target.focus();
  opened.value = undefined;
}

/** What of a row is chosen or typed into, as one word: rows in which nothing of that changes are not drawn again. */
function selectedIn(row: number): string {
  const { row: activeRow, column } = active.value;
  const chosen = props.grid.selectedColumns(row);
  return `${chosen ? `${chosen.left} ${chosen.right}` : ''} ${row === activeRow ? `${column} ${editing.value}` : ''}`;
}

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

/** The mean of each column that was in sight, of those who have a result. */
const means = computed(() => ({ rows: rows.value, as: props.as, known: new Map<string, string>() }));
function meanOf({ id, at, possible }: ShownColumn): string {
  const { rows: all, as, known } = means.value;
  const before = known.get(id);
  if (before !== undefined) return before;
  const { n, mean } = statisticsOf(all.flatMap(({ cells }) => cells[at]?.points ?? []));
  const value = as === 'percent' && possible ? `${((mean! / possible) * 100).toFixed(1)} %` : (mean! / 100).toFixed(1);
  const words = n === 0 ? '' : `${value} · ${n}`;
  known.set(id, words);
  return words;
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
        v-for="{ index, column, place } in seenColumns"
        :key="place"
        class="column"
        role="columnheader"
        :aria-colindex="index + 3"
        :aria-sort="sorted(column.id)"
      >
        <button
          type="button"
          class="title"
          aria-haspopup="dialog"
          :aria-expanded="opened?.column.id === column.id"
          @click="opened = { column, target: $event.currentTarget as HTMLElement }"
        >
          <span class="words">{{ column.title }}</span>
          <span class="quiet figures"
            >{{ column.possible === null ? 'out of ?' : `of ${formatHundredths(column.possible)}`
            }}{{ column.extra ? ', extra' : '' }} {{ arrow(column.id) }}</span
          >
          <span class="visually-hidden">What can be done</span>
        </button>
      </div>
    </div>
    <div class="body" role="presentation" :style="{ width, height: `${down.getTotalSize()}px` }">
      <div
        v-for="{ index: row, start, place } in seenRows"
        :key="place"
        v-memo="[rows[row], row, start, seenColumns, before, width, as, selectedIn(row), gradeOf(rows[row]!)]"
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
          v-for="{ index, column, place: at } in seenColumns"
          :id="idOf({ row, column: index })"
          :key="at"
          class="column"
          :class="{ active: isActive(row, index), selected: grid.isSelected({ row, column: index }) }"
          role="gridcell"
          :aria-colindex="index + 3"
          :aria-selected="grid.isSelected({ row, column: index })"
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
          <template v-else>
            <span class="visually-hidden"
              >{{ rows[row]!.name }}, {{ column.title }}: {{ cellWords(rows[row]!.cells[column.at]) }}</span
            >
            <GradeBox :cell="rows[row]!.cells[column.at] ?? null" :as="as" />
          </template>
        </div>
      </div>
    </div>
    <div class="row foot" role="row" :aria-rowindex="rows.length + 2" :style="{ width }">
      <div class="name" role="rowheader" aria-colindex="1">Mean · how many</div>
      <div class="course figures" role="gridcell" aria-colindex="2">{{ courseMean }}</div>
      <div class="before" role="presentation" :style="{ width: before }"></div>
      <div
        v-for="{ index, column, place } in seenColumns"
        :key="place"
        class="column figures"
        role="gridcell"
        :aria-colindex="index + 3"
      >
        {{ meanOf(column) }}
      </div>
    </div>
    <ColumnMenu
      v-if="opened"
      :key="opened.column.id"
      :column="opened.column"
      :target="opened.target"
      :rows="rows"
      :grid="grid"
      @sort="sortBy(opened.column.id)"
      @close="closeMenu"
    />
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
  contain: layout style;
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
  contain: strict;
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
  contain: strict;
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
.title {
  display: flex;
  flex-direction: column;
  justify-content: space-between;
  width: 100%;
  height: 63px;
  padding: 6px 8px;
  line-height: 1.2;
  text-align: start;
}
.title:focus-visible {
  outline-offset: -2px;
}
.words {
  display: -webkit-box;
  overflow: hidden;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  line-clamp: 2;
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
