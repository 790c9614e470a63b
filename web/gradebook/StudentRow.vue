<script setup lang="ts">
import type { GradeRow } from '#contract/gradebook';
import { formatHundredths, type CourseGrade } from '#core/grading';
import type { ShownAs } from './cell-words.ts';
import GridCell from './GridCell.vue';
import { COURSE_COLUMN, type At } from './use-grid.ts';
import { idOfCell, type SeenColumn } from './use-seen.ts';

/** One student and the results in sight. It is drawn again where something of it has changed, and no other row is. */
const props = defineProps<{
  row: GradeRow;
  /** Which of the rows it is. */
  index: number;
  columns: readonly SeenColumn[];
  as: ShownAs;
  grade: CourseGrade;
  /** The column that is active in it. */
  active: number | undefined;
  /** What of it is selected, from column to column. */
  left: number | undefined;
  right: number | undefined;
}>();
const editing = defineModel<string | undefined>('editing');
const emit = defineEmits<{ press: [at: At, event: MouseEvent]; drag: [at: At, event: PointerEvent]; commit: [] }>();

const isSelected = (column: number): boolean =>
  props.left !== undefined && column >= props.left && column <= props.right!;
const at = (column: number): At => ({ row: props.index, column });

const courseWords = ({ percentage, grade }: CourseGrade): string =>
  percentage === null ? '' : (grade ?? `${formatHundredths(percentage)} %`);
const percentWords = ({ percentage, grade }: CourseGrade): string =>
  percentage === null || grade === null ? '' : `${formatHundredths(percentage)} %`;
</script>

<template>
  <div class="row" role="row" :aria-rowindex="index + 2">
    <div class="name" role="rowheader" aria-colindex="1">
      {{ row.name }}<span v-if="row.left" class="quiet"> has left</span>
    </div>
    <div
      :id="active === COURSE_COLUMN ? idOfCell(at(COURSE_COLUMN)) : undefined"
      class="course"
      :class="{ active: active === COURSE_COLUMN }"
      role="gridcell"
      aria-colindex="2"
      @mousedown.prevent="emit('press', at(COURSE_COLUMN), $event)"
    >
      <span class="grade">{{ courseWords(grade) }}</span>
      <span class="quiet figures">{{ percentWords(grade) }}</span>
    </div>
    <GridCell
      v-for="{ index: column, column: { title, at: place }, start, place: key } in columns"
      :id="active === column ? idOfCell(at(column)) : undefined"
      :key="key"
      :editing="active === column ? editing : undefined"
      :name="row.name"
      :title="title"
      :cell="row.cells[place] ?? null"
      :as="as"
      :start="start"
      :active="active === column"
      :selected="isSelected(column)"
      :aria-colindex="column + 3"
      @update:editing="editing = $event"
      @press="emit('press', at(column), $event)"
      @drag="emit('drag', at(column), $event)"
      @commit="emit('commit')"
    />
  </div>
</template>

<style scoped>
.row {
  contain: layout style;
  position: absolute;
  top: 0;
  left: 0;
  display: flex;
  height: 42px;
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
.active {
  outline: 2px solid var(--ink);
  outline-offset: -2px;
}
.grade {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
.quiet {
  font-size: 12px;
}
</style>
