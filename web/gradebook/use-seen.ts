import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, type ComputedRef, type Ref } from 'vue';
import type { At } from './use-grid.ts';
import type { Shown, ShownColumn } from './use-shown.ts';

/** Sizes of the grid in CSS pixels; they stand in its styles, too. */
export const ROW = 42;
export const HEAD = 64;
const NAME = 190;
const COURSE = 96;
const COLUMN = 104;
/** So many beyond each edge are drawn before they are seen. */
const BEYOND = { down: 3, across: 1 };

/** A column in sight. */
export interface SeenColumn {
  index: number;
  column: ShownColumn;
  /** Where it begins in a row, in CSS pixels. */
  start: number;
  /** Its place in the window. */
  place: number;
}
export interface SeenRow {
  index: number;
  start: number;
  place: number;
}

export const idOfCell = ({ row, column }: At): string => `grade-${row}-${column}`;

export interface Seen {
  rows: ComputedRef<SeenRow[]>;
  columns: ComputedRef<readonly SeenColumn[]>;
  /** Of everything, in CSS pixels. */
  width: ComputedRef<number>;
  height: ComputedRef<number>;
  scrollTo(at: At, align?: 'center'): void;
}

/**
 * The rows and columns in sight. One that comes into sight takes the place of one that has left it: what is there is written anew,
 * which is quicker than making it. So each is known by its place in the window.
 */
export function useSeen(scroller: Ref<HTMLElement | undefined>, { rows, columns }: Shown): Seen {
  const getScrollElement = (): HTMLElement | null => scroller.value ?? null;
  const down = useVirtualizer(
    computed(() => ({
      ...{ count: rows.value.length, getScrollElement, estimateSize: () => ROW, overscan: BEYOND.down },
    })),
  );
  const across = useVirtualizer(
    computed(() => ({
      ...{
        horizontal: true,
        count: columns.value.length,
        getScrollElement,
        estimateSize: () => COLUMN,
        overscan: BEYOND.across,
      },
    })),
  );

  /*
   * As many places as there can be rows or columns in sight, wherever one scrolls to: were it as many as there are now, the next
   * scrolling would give all of them other places, and what somebody is about to press would be something else.
   */
  const placesIn = (pixels: number | undefined, each: number, overscan: number): number =>
    Math.ceil((pixels ?? 0) / each) + 1 + 2 * overscan;

  let lastColumns: readonly SeenColumn[] = [];
  return {
    rows: computed(() => {
      const items = down.value.getVirtualItems();
      const places = Math.max(items.length, placesIn(down.value.scrollRect?.height, ROW, BEYOND.down));
      return items.map(({ index, start }) => ({ index, start, place: index % places }));
    }),
    columns: computed(() => {
      const items = across.value.getVirtualItems();
      const places = Math.max(items.length, placesIn(across.value.scrollRect?.width, COLUMN, BEYOND.across));
      const now = items.map(({ index, start }) => ({
        ...{ index, start: NAME + COURSE + start, column: columns.value[index]!, place: index % places },
      }));
      const same =
        now.length === lastColumns.length &&
        now.every(({ column, place }, at) => lastColumns[at]!.column === column && lastColumns[at]!.place === place);
      return same ? lastColumns : (lastColumns = now);
    }),
    width: computed(() => NAME + COURSE + across.value.getTotalSize()),
    height: computed(() => down.value.getTotalSize()),
    // By what the element says: what the virtualizer knows of it may be of before the last scrolling, and would lead back there.
    scrollTo({ row, column }, align) {
      const grid = scroller.value;
      if (!grid) return;
      const room = grid.clientHeight - HEAD - ROW;
      const lowest = (row + 1) * ROW - room;
      if (align === 'center') grid.scrollTop = row * ROW - room / 2;
      else if (row * ROW < grid.scrollTop) grid.scrollTop = row * ROW;
      else if (lowest > grid.scrollTop) grid.scrollTop = lowest;
      if (column < 0) return;
      const farthest = NAME + COURSE + (column + 1) * COLUMN - grid.clientWidth;
      if (column * COLUMN < grid.scrollLeft) grid.scrollLeft = column * COLUMN;
      else if (farthest > grid.scrollLeft) grid.scrollLeft = farthest;
    },
  };
}
