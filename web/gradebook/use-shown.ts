import { courseGrader, type CourseGrade } from '#core/grading';
import { hiddenBy, hiddenSentence, isNamed, WHOLE_GRADEBOOK, type GradebookFilter } from '#core/gradebook';
import type { Gradebook, GradeColumn, GradeRow } from '#contract/gradebook';
import { useSessionStorage } from '@vueuse/core';
import { computed, type ComputedRef, type Ref } from 'vue';
import { dayOf } from '../wording/local-time.ts';

/** What rows are in the order of: the students' names, the result of the course, or one assignment. */
export interface Order {
  by: 'name' | 'course' | (string & {});
  down: boolean;
}

export interface ShownColumn extends GradeColumn {
  /** Where its cells are in a row. */
  at: number;
}

export interface Shown {
  filter: Ref<GradebookFilter>;
  order: Ref<Order>;
  columns: ComputedRef<ShownColumn[]>;
  rows: ComputedRef<GradeRow[]>;
  /** What is hidden and by what; undefined where nothing is. */
  hidden: ComputedRef<string | undefined>;
  /** How many students there are whom a search or leaving hides. */
  hiddenRows: ComputedRef<number>;
  showAll(): void;
  gradeOf(row: GradeRow): CourseGrade;
}

/** What of a gradebook is shown, in which order. It stays while one walks about. */
export function useShown(course: () => string, book: () => Gradebook | undefined): Shown {
  const filter = useSessionStorage<GradebookFilter>(`gradebook-filter-${course()}`, { ...WHOLE_GRADEBOOK });
  const order = useSessionStorage<Order>(`gradebook-order-${course()}`, { by: 'name', down: false });

  const reasons = computed(() => book()?.columns.map((column) => hiddenBy(column, filter.value, dayOf)) ?? []);
  const columns = computed(
    () => book()?.columns.flatMap((column, at): ShownColumn[] => (reasons.value[at] ? [] : [{ ...column, at }])) ?? [],
  );
  const matching = computed(
    () =>
      book()?.rows.filter(({ name, left }) => (filter.value.left || !left) && isNamed(name, filter.value.search)) ?? [],
  );

  const grader = computed(() => {
    const now = book();
    const grade = now && courseGrader(now.columns, now.scheme);
    // A row in which nothing has changed is the same as before.
    const known = new WeakMap<GradeRow, CourseGrade>();
    return (row: GradeRow): CourseGrade => {
      const before = known.get(row);
      if (before) return before;
      const made = grade!(row.cells.map((cell) => cell ?? undefined));
      known.set(row, made);
      return made;
    };
  });
  const gradeOf = (row: GradeRow): CourseGrade => grader.value(row);

  const rows = computed(() => {
    const { by, down } = order.value;
    const at = book()?.columns.findIndex(({ id }) => id === by) ?? -1;
    const valueOf = (row: GradeRow): number | string | null =>
      by === 'course' ? gradeOf(row).percentage : at >= 0 ? (row.cells[at]?.points ?? null) : row.name;
    const sign = down ? -1 : 1;
    return matching.value
      .map((row) => ({ row, value: valueOf(row) }))
      .toSorted((a, b) => {
        // Nothing stands at the end, whichever way.
        if (a.value === null || b.value === null) return Number(a.value === null) - Number(b.value === null);
        const first =
          typeof a.value === 'number' ? a.value - (b.value as number) : a.value.localeCompare(b.value as string);
        return sign * first || a.row.name.localeCompare(b.row.name);
      })
      .map(({ row }) => row);
  });

  return {
    ...{ filter, order, columns, rows, gradeOf },
    hidden: computed(() => hiddenSentence(reasons.value)),
    hiddenRows: computed(() => (book()?.rows.length ?? 0) - matching.value.length),
    showAll: () => void (filter.value = { ...WHOLE_GRADEBOOK, search: filter.value.search, left: filter.value.left }),
  };
}
