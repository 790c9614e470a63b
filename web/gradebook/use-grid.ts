import { FLAG_KEYS, MOST_PASTED, readBlock, readEntry, writeBlock, type Entry } from '#core/gradebook';
import { formatHundredths, type Flag } from '#core/grading';
import type { CellChange, Gradebook, GradeCell, GradeRow } from '#contract/gradebook';
import { useLetterKeys } from '../shell/command.ts';
import { computed, ref, shallowRef, watch, type ComputedRef, type Ref } from 'vue';
import type { ChangedCells } from './subject.ts';
import type { Shown, ShownColumn } from './use-shown.ts';

/** A cell of what is shown; the column before the assignments is that of the course. */
export interface At {
  row: number;
  column: number;
}
export const COURSE_COLUMN = -1;

export interface Grid {
  active: Ref<At>;
  /** The columns of a row that are selected; undefined where none are. */
  selectedColumns(row: number): { left: number; right: number } | undefined;
  select(at: At, extend?: boolean): void;
  cell: ComputedRef<{ row: GradeRow; column: ShownColumn | undefined; cell: GradeCell | null } | undefined>;
  /** What is being typed into the active cell; undefined where nothing is. */
  editing: Ref<string | undefined>;
  problem: Ref<string | undefined>;
  edit(text?: string): void;
  /** @returns whether it was taken */
  commit(): boolean;
  keydown(event: KeyboardEvent): void;
  copy(event: ClipboardEvent): void;
  paste(event: ClipboardEvent): void;
  /** Changes cells that need not be in sight, together. @returns what takes that back, whatever was done since */
  take(changes: readonly { student: string; assignment: string; to: CellChange['to'] }[]): () => void;
  /** Gives the same to some students in one assignment. */
  giveAll(column: ShownColumn, rows: readonly GradeRow[], entry: Entry | { returned: boolean }): void;
  undo(): void;
  redo(): void;
  canUndo: ComputedRef<boolean>;
}

interface Options {
  shown: Shown;
  book: () => Gradebook | undefined;
  /** How many rows a page of the keyboard has. */
  pageRows: () => number;
  apply(change: ChangedCells): void;
  open(cell: GradeCell): void;
}

interface Deed {
  there: ChangedCells;
  back: ChangedCells;
}

/** A change and what takes it back. */
interface Change {
  there: ChangedCells['changes'][number];
  back: CellChange['to'];
}

interface Wanted {
  at: At;
  entry: Entry;
}

/** A cell as it would be typed. */
const written = (cell: GradeCell | null): string =>
  cell?.flag ?? (cell && cell.points !== null ? formatHundredths(cell.points) : '');

/** Moves about and types in a grid as people know it from spreadsheets. */
export function useGrid({ shown: { rows, columns }, book, pageRows, apply, open }: Options): Grid {
  const active = ref<At>({ row: 0, column: 0 });
  const anchor = ref<At>({ row: 0, column: 0 });
  const editing = ref<string>();
  const problem = ref<string>();
  const done = shallowRef<readonly Deed[]>([]);
  const undone = shallowRef<readonly Deed[]>([]);
  const letters = useLetterKeys();

  const clamp = (value: number, least: number, most: number): number => Math.max(least, Math.min(most, value));
  const inside = ({ row, column }: At): At => ({
    row: clamp(row, 0, Math.max(0, rows.value.length - 1)),
    column: clamp(column, COURSE_COLUMN, columns.value.length - 1),
  });

  function select(at: At, extend = false): void {
    active.value = inside(at);
    if (!extend) anchor.value = active.value;
    problem.value = undefined;
  }
  // Whatever is shown, one stays at the same student and assignment, or near them.
  watch([rows, columns], ([, nowColumns], [wereRows, wereColumns]) => {
    const moved = ({ row, column }: At): At => {
      const [student, assignment] = [wereRows[row]?.id, wereColumns[column]?.id];
      const found = {
        row: rows.value.findIndex(({ id }) => id === student),
        column: nowColumns.findIndex(({ id }) => id === assignment),
      };
      return inside({
        row: found.row < 0 ? row : found.row,
        column: column === COURSE_COLUMN || found.column < 0 ? column : found.column,
      });
    };
    // What is where it was is left alone: the grid scrolls to what is active when that becomes another.
    for (const one of [active, anchor]) {
      const { row, column } = moved(one.value);
      if (row !== one.value.row || column !== one.value.column) one.value = { row, column };
    }
  });

  const block = computed(() => {
    const [a, b] = [active.value, anchor.value];
    return {
      top: Math.min(a.row, b.row),
      bottom: Math.max(a.row, b.row),
      left: Math.min(a.column, b.column),
      right: Math.max(a.column, b.column),
    };
  });
  const selectedColumns = (row: number): { left: number; right: number } | undefined =>
    row >= block.value.top && row <= block.value.bottom ? block.value : undefined;
  const range = (from: number, to: number): number[] =>
    Array.from({ length: to - from + 1 }, (_, index) => from + index);
  const blockCells = (): At[] =>
    range(block.value.top, block.value.bottom).flatMap((row) =>
      range(Math.max(0, block.value.left), block.value.right).map((column) => ({ row, column })),
    );

  const cellAt = ({ row, column }: At): GradeCell | null => {
    const shownColumn = columns.value[column];
    return (shownColumn && rows.value[row]?.cells[shownColumn.at]) ?? null;
  };
  const cell = computed(() => {
    const row = rows.value[active.value.row];
    return row && { row, column: columns.value[active.value.column], cell: cellAt(active.value) };
  });

  /** Why a cell does not take something; undefined where it does. */
  function refusal(at: At, entry: Entry): string | undefined {
    const [now, column] = [cellAt(at), columns.value[at.column]!];
    if ('flag' in entry) return undefined;
    if (now?.nameless) return 'it is marked without names. Grade it at the desk.';
    if (now?.state === 'returned' && now.points !== entry.points)
      return 'it has been returned. Take it back at the desk to change its grade.';
    return entry.points !== null && column.possible === null ? 'say first what this assignment is out of.' : undefined;
  }

  const nameOf = ({ row, column }: At): string => `${rows.value[row]!.name}, ${columns.value[column]!.title}`;

  /** All of it or nothing. @returns whether it was taken */
  function give(wanted: readonly Wanted[]): boolean {
    const wrong = wanted.map(({ at, entry }) => ({ at, why: refusal(at, entry) })).find(({ why }) => why !== undefined);
    if (wrong) {
      problem.value = `Nothing was changed. ${nameOf(wrong.at)}: ${wrong.why}`;
      return false;
    }
    perform(wanted.map(({ at, entry }) => changeAt(at, 'flag' in entry ? entry : withoutFlag(cellAt(at), entry))));
    return true;
  }

  /** Whoever grades what was missing says that it is not. */
  const withoutFlag = (now: GradeCell | null, { points }: { points: number | null }): CellChange['to'] =>
    now?.flag && points !== null ? { points, flag: null } : { points };

  const changeAt = (at: At, to: CellChange['to']): Change =>
    changeOf(rows.value[at.row]!, columns.value[at.column]!, to);

  function changeOf(row: GradeRow, column: ShownColumn, to: CellChange['to']): Change {
    const now = row.cells[column.at] ?? null;
    const was = { points: now?.points ?? null, flag: now?.flag ?? null, returned: now?.returned ?? false };
    const place = { assignment: column.id, student: row.id, named: `${row.name}, ${column.title}` };
    return {
      there: { ...place, to, was },
      back: {
        ...(to.points !== undefined && { points: was.flag === null ? was.points : null }),
        ...(to.flag !== undefined && { flag: was.flag }),
        ...(to.returned !== undefined && { returned: was.returned }),
      },
    };
  }

  function perform(made: readonly Change[]): Deed | undefined {
    const news = made.filter(({ there: { to, was } }) =>
      (Object.keys(to) as (keyof typeof to)[]).some((key) => to[key] !== was![key]),
    );
    if (news.length === 0) return undefined;
    const deed: Deed = {
      there: { changes: news.map(({ there }) => there), why: '' },
      // What one takes back is as it was, whatever came of it in between.
      back: {
        changes: news.map(({ there: { was: _, ...place }, back }) => ({ ...place, to: back })),
        why: 'taken back',
      },
    };
    problem.value = undefined;
    apply(deed.there);
    done.value = [...done.value, deed];
    undone.value = [];
    return deed;
  }

  function undo(): void {
    const deed = done.value.at(-1);
    if (!deed) return;
    done.value = done.value.slice(0, -1);
    undone.value = [...undone.value, deed];
    apply(deed.back);
  }
  function redo(): void {
    const deed = undone.value.at(-1);
    if (!deed) return;
    undone.value = undone.value.slice(0, -1);
    done.value = [...done.value, deed];
    apply({ ...deed.there, changes: deed.there.changes.map(({ was: _, ...change }) => change) });
  }

  function edit(text?: string): void {
    if (active.value.column === COURSE_COLUMN) return;
    const now = cellAt(active.value);
    editing.value = text ?? written(now);
    problem.value = undefined;
  }

  function commit(): boolean {
    const text = editing.value;
    if (text === undefined) return true;
    const entry = readEntry(text, columns.value[active.value.column]!.possible);
    if ('problem' in entry) {
      problem.value = entry.problem;
      return false;
    }
    if (!give([{ at: active.value, entry }])) return false;
    editing.value = undefined;
    return true;
  }

  const setFlag = (flag: Flag): void => {
    const cells = blockCells();
    // Once more takes it away.
    const off = cells.every((at) => cellAt(at)?.flag === flag);
    perform(cells.map((at) => changeAt(at, { flag: off ? null : flag })));
  };

  const step = (down: number, right: number, extend = false): void =>
    select({ row: active.value.row + down, column: active.value.column + right }, extend);

  function typing(event: KeyboardEvent): boolean {
    switch (event.key) {
      case 'Enter':
        if (commit()) step(event.shiftKey ? -1 : 1, 0);
        return true;
      case 'Tab':
        if (commit()) step(0, event.shiftKey ? -1 : 1);
        return true;
      case 'Escape':
        editing.value = problem.value = undefined;
        return true;
      default:
        return false;
    }
  }

  function moving({ key, shiftKey, ctrlKey, metaKey }: KeyboardEvent): boolean {
    const far = ctrlKey || metaKey;
    const all = rows.value.length;
    const steps: Record<string, [number, number]> = {
      ArrowDown: [far ? all : 1, 0],
      ArrowUp: [far ? -all : -1, 0],
      ArrowRight: [0, far ? columns.value.length : 1],
      ArrowLeft: [0, far ? -columns.value.length : -1],
      PageDown: [pageRows(), 0],
      PageUp: [-pageRows(), 0],
      Home: [far ? -all : 0, -columns.value.length],
      End: [far ? all : 0, columns.value.length],
    };
    const found = steps[key];
    if (found) step(...found, shiftKey);
    return found !== undefined;
  }

  function acting({ key, ctrlKey, metaKey, altKey, shiftKey }: KeyboardEvent): boolean {
    const pressed = key.toLowerCase();
    if (ctrlKey || metaKey) {
      if (pressed === 'z') (shiftKey ? redo : undo)();
      else if (pressed === 'y') redo();
      else if (pressed === 'a') {
        anchor.value = { row: 0, column: 0 };
        active.value = inside({ row: rows.value.length, column: columns.value.length });
      } else return false;
      return true;
    }
    if (altKey) return false;
    if (key === 'Enter' || key === 'F2') edit();
    else if (key === 'Delete' || key === 'Backspace') give(blockCells().map((at) => ({ at, entry: { points: null } })));
    else if (key === 'Escape') select(active.value);
    else if (/^[\d.,]$/u.test(key)) edit(key);
    else if (letters.value && pressed in FLAG_KEYS) setFlag(FLAG_KEYS[pressed as keyof typeof FLAG_KEYS]);
    else if (letters.value && pressed === 'o') {
      const now = cellAt(active.value);
      if (now?.submission) open(now);
    } else return false;
    return true;
  }

  function keydown(event: KeyboardEvent): void {
    if (rows.value.length === 0) return;
    const taken = editing.value === undefined ? moving(event) || acting(event) : typing(event);
    if (taken) event.preventDefault();
  }

  function copy(event: ClipboardEvent): void {
    if (editing.value !== undefined) return;
    const { top, bottom, left, right } = block.value;
    const text = range(top, bottom).map((row) =>
      range(Math.max(0, left), right).map((column) => {
        const now = cellAt({ row, column });
        return written(now);
      }),
    );
    event.clipboardData?.setData('text/plain', writeBlock(text));
    event.preventDefault();
  }

  function paste(event: ClipboardEvent): void {
    if (editing.value !== undefined) return;
    event.preventDefault();
    problem.value = undefined;
    const text = event.clipboardData?.getData('text/plain') ?? '';
    const lines = text.match(/\n|\r(?!\n)/gu)?.length ?? 0;
    const pasted = lines > MOST_PASTED ? [] : readBlock(text);
    const size = pasted.reduce((sum, row) => sum + row.length, 0);
    if (lines > MOST_PASTED || size > MOST_PASTED)
      return refusePaste(
        `That is too much: at most ${MOST_PASTED} cells are pasted at once. Import it as a file instead.`,
      );
    const { top, left } = block.value;
    const one = pasted.length === 1 && pasted[0]!.length === 1 ? pasted[0]![0]! : undefined;
    const targets =
      one === undefined
        ? pasted.flatMap((row, down) =>
            row.map((text, right) => ({ text, at: { row: top + down, column: Math.max(0, left) + right } })),
          )
        : blockCells().map((at) => ({ text: one, at }));
    if (targets.some(({ at }) => at.row >= rows.value.length || at.column >= columns.value.length))
      return refusePaste('The block is larger than what is below and beside this cell.');
    const wanted: Wanted[] = [];
    for (const { text: typed, at } of targets) {
      const entry = readEntry(typed, columns.value[at.column]!.possible);
      if ('problem' in entry) return refusePaste(`${nameOf(at)}: ${entry.problem}`);
      wanted.push({ at, entry });
    }
    give(wanted);
  }
  const refusePaste = (why: string): void => void (problem.value = `Nothing was pasted. ${why}`);

  return {
    ...{
      active,
      selectedColumns,
      select,
      cell,
      editing,
      problem,
      edit,
      commit,
      keydown,
      copy,
      paste,
      undo,
      redo,
    },
    take(changes) {
      const now = book()!;
      const rowOf = new Map(now.rows.map((row) => [row.id, row]));
      const columnOf = new Map(now.columns.map((column, at) => [column.id, { ...column, at }]));
      const deed = perform(
        changes.flatMap(({ student, assignment, to }) => {
          const [row, column] = [rowOf.get(student), columnOf.get(assignment)];
          return row && column ? [changeOf(row, column, to)] : [];
        }),
      );
      return () => {
        if (!deed || !done.value.includes(deed)) return;
        done.value = done.value.filter((one) => one !== deed);
        apply(deed.back);
      };
    },
    giveAll(column, some, entry) {
      const at = columns.value.findIndex(({ id }) => id === column.id);
      const places = some.map((row) => ({ row: rows.value.indexOf(row), column: at }));
      if ('returned' in entry) perform(places.map((place) => changeAt(place, { returned: entry.returned })));
      else give(places.map((place) => ({ at: place, entry })));
    },
    canUndo: computed(() => done.value.length > 0),
  };
}
