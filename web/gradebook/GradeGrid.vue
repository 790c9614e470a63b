<script setup lang="ts">
import { formatHundredths, statisticsOf } from '#core/grading';
import { computed, nextTick, onMounted, ref, shallowRef, watch } from 'vue';
import { type ShownAs } from './cell-words.ts';
import ColumnMenu from './ColumnMenu.vue';
import StudentRow from './StudentRow.vue';
import type { At, Grid } from './use-grid.ts';
import { HEAD, idOfCell, ROW, useSeen } from './use-seen.ts';
import type { Shown, ShownColumn } from './use-shown.ts';

/** Students and their results, of which only those in sight are drawn. */
const props = defineProps<{ shown: Shown; grid: Grid; as: ShownAs; title: string; focused?: boolean }>();
const emit = defineEmits<{ open: [at: At]; pageRows: [count: number] }>();

const scroller = ref<HTMLElement>();
const opened = shallowRef<{ column: ShownColumn; target: HTMLElement }>();
const { columns, rows, order, gradeOf } = props.shown;
const { active, editing } = props.grid;

const seen = useSeen(scroller, props.shown);
const { rows: seenRows, columns: seenColumns } = seen;
const width = computed(() => `${seen.width.value}px`);

const isActive = (row: number, column: number): boolean => active.value.row === row && active.value.column === column;
const activeIn = (row: number): number | undefined => (active.value.row === row ? active.value.column : undefined);

function closeMenu(): void {
  opened.value?.target.focus();
  opened.value = undefined;
}

/** What is active is in sight. */
watch(
  active,
  async (at) => {
    await nextTick();
    seen.scrollTo(at);
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
  if (active.value.row > 0 || active.value.column > 0) seen.scrollTo(active.value, 'center');
});

function sortBy(by: string): void {
  order.value = { by, down: order.value.by === by ? !order.value.down : by !== 'name' };
}
const sorted = (by: string): 'ascending' | 'descending' | 'none' =>
  order.value.by !== by ? 'none' : order.value.down ? 'descending' : 'ascending';
const arrow = (by: string): string => ({ ascending: '↑', descending: '↓', none: '' })[sorted(by)];

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
function editAt({ target }: MouseEvent): void {
  if ((target as Element).closest('.column')) props.grid.edit();
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
    :aria-activedescendant="rows.length > 0 ? idOfCell(active) : undefined"
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
      <div
        v-for="{ index, column, start, place } in seenColumns"
        :key="place"
        class="column"
        :style="{ left: `${start}px` }"
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
    <div class="body" role="presentation" :style="{ width, height: `${seen.height.value}px` }" @dblclick="editAt">
      <StudentRow
        v-for="{ index, start, place } in seenRows"
        :key="place"
        :editing="activeIn(index) === undefined ? undefined : editing"
        :row="rows[index]!"
        :index="index"
        :columns="seenColumns"
        :as="as"
        :grade="gradeOf(rows[index]!)"
        :active="activeIn(index)"
        :left="grid.selectedColumns(index)?.left"
        :right="grid.selectedColumns(index)?.right"
        :style="{ width, transform: `translateY(${start}px)` }"
        @update:editing="editing = $event"
        @press="press"
        @drag="drag"
        @commit="grid.commit"
      />
    </div>
    <div class="row foot" role="row" :aria-rowindex="rows.length + 2" :style="{ width }">
      <div class="name" role="rowheader" aria-colindex="1">Mean · how many</div>
      <div class="course figures" role="gridcell" aria-colindex="2">{{ courseMean }}</div>
      <div
        v-for="{ index, column, start, place } in seenColumns"
        :key="place"
        class="column figures"
        :style="{ left: `${start}px` }"
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
.head > *,
.foot > * {
  background: var(--ground);
}
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
.grid:focus-visible {
  outline-offset: -2px;
}
.quiet {
  font-size: 12px;
}
</style>
