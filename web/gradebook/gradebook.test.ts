// @vitest-environment happy-dom
import { courseGrader } from '#core/grading';
import { WHOLE_GRADEBOOK } from '#core/gradebook';
import type { Gradebook, GradeCell, GradeRow } from '#contract/gradebook';
import { beforeEach, describe, expect, it } from 'vitest';
import { computed, nextTick, ref } from 'vue';
import { cellWords, isDraft, resultWords, signOf } from './cell-words.ts';
import type { ChangedCells } from './subject.ts';
import { gradebookSubject, touchedBy } from './subject.ts';
import { COURSE_COLUMN, useGrid } from './use-grid.ts';
import { useShown, type Shown } from './use-shown.ts';

const cell = (more: Partial<GradeCell> = {}): GradeCell => ({
  ...{ submission: null, state: null, points: 700, possible: 1000, grade: null, flag: null, late: false },
  ...{ entered: true, returned: false, nameless: false, again: false, spoken: 0, heard: 0, unanswered: 0 },
  ...more,
});
const column = (id: string, more: object = {}): Gradebook['columns'][number] => ({
  ...{ id, title: `Log ${id}`, term: 'Autumn', category: 'Logs', weight: null, extra: false, possible: 1000 },
  ...{ shown: 'points' as const, dueAt: '2026-10-02T12:00:00Z', open: true },
  ...more,
});
const row = (id: string, name: string, ...cells: (GradeCell | null)[]): GradeRow => ({ id, name, left: false, cells });
const BOOK: Gradebook = {
  ...{ course: { id: 'c', title: 'Letters' }, terms: ['Autumn', 'Winter'] },
  scheme: { count: 'points', categories: [], scale: [], decimals: 1, shown: true },
  columns: [column('a'), column('b', { term: 'Winter' }), column('x', { possible: null, term: null })],
  rows: [
    row('s1', 'Zofia Krol', cell({ points: 400 }), null, null),
    row('s2', 'Aroha Ngata', cell({ points: 900 }), cell({ state: 'returned', submission: 'w', returned: true }), null),
    row('s3', 'Mirza Hadžić', null, cell({ nameless: true, points: null, entered: false }), null),
  ],
};

let book = ref<Gradebook>(BOOK);
let shown: Shown;
let applied: ChangedCells[];
let opened: GradeCell[];
let grid: ReturnType<typeof useGrid>;
beforeEach(() => {
  sessionStorage.clear();
  book = ref(BOOK);
  shown = useShown(
    () => `c${Math.random()}`,
    () => book.value,
  );
  applied = [];
  opened = [];
  grid = useGrid({
    shown,
    book: () => book.value,
    pageRows: () => 2,
    apply: (change) => applied.push(change),
    open: (one) => opened.push(one),
  });
});

const press = (key: string, more: Partial<KeyboardEvent> = {}): void =>
  grid.keydown({ key, preventDefault: () => undefined, ...more } as KeyboardEvent);
const type = (text: string): void => {
  press(text[0]!);
  grid.editing.value = text;
};
const paste = (text: string): void =>
  grid.paste({ clipboardData: { getData: () => text }, preventDefault: () => undefined } as unknown as ClipboardEvent);
const given = (): unknown[] =>
  applied.flatMap(({ changes }) => changes.map(({ student, assignment, to }) => [student, assignment, to]));

describe('what is shown', () => {
  it('is in the order of names, of the course, or of an assignment; nothing stands at the end either way', () => {
    const names = (): string[] => shown.rows.value.map(({ id }) => id);
    expect(names()).toEqual(['s2', 's3', 's1']);
    shown.order.value = { by: 'a', down: true };
    expect(names()).toEqual(['s2', 's1', 's3']);
    shown.order.value = { by: 'a', down: false };
    expect(names()).toEqual(['s1', 's2', 's3']);
    shown.order.value = { by: 'course', down: true };
    expect(names()[0]).toBe('s2');
  });

  it('says what a filter hides, until all is shown', () => {
    shown.filter.value = { ...WHOLE_GRADEBOOK, term: 'Winter' };
    expect(shown.columns.value.map(({ id }) => id)).toEqual(['b']);
    expect(shown.hidden.value).toBe('2 of 3 assignments are hidden by the term.');
    shown.showAll();
    expect([shown.hidden.value, shown.columns.value.length]).toEqual([undefined, 3]);
  });

  it('grades the course as core does', () => {
    const first = shown.rows.value[0]!;
    expect(shown.gradeOf(first)).toEqual(
      courseGrader(BOOK.columns, BOOK.scheme)(first.cells.map((one) => one ?? undefined)),
    );
    expect(shown.gradeOf(first)).toBe(shown.gradeOf(first));
  });
});

describe('the grid', () => {
  it('takes what is typed, and goes on to the next student', () => {
    type('8,5');
    press('Enter');
    expect(given()).toEqual([['s2', 'a', { points: 850 }]]);
    expect(grid.active.value).toEqual({ row: 1, column: 0 });
  });

  it('says what is wrong and changes nothing', () => {
    type('8x');
    press('Enter');
    expect(grid.problem.value).toContain('“8x” is no grade');
    expect([given(), grid.editing.value]).toEqual([[], '8x']);
    press('Escape');
    expect(grid.editing.value).toBeUndefined();
  });

  it('changes no returned work, none without a name, and none that is out of nothing', () => {
    for (const [at, why] of [
      [{ row: 0, column: 1 }, 'it has been returned'],
      [{ row: 1, column: 1 }, 'without names'],
      [{ row: 1, column: 2 }, 'what this assignment is out of'],
    ] as const) {
      grid.select(at);
      type('5');
      press('Enter');
      expect(grid.problem.value).toContain(why);
      press('Escape');
    }
    expect(given()).toEqual([]);
  });

  it('sets a flag for all that is selected, and takes it away again', () => {
    grid.select({ row: 0, column: 0 });
    press('ArrowDown', { shiftKey: true });
    press('m');
    expect(given()).toEqual([
      ['s2', 'a', { flag: 'missing' }],
      ['s3', 'a', { flag: 'missing' }],
    ]);
  });

  it('pastes a block, all of it or nothing', () => {
    paste('1\n2\nx');
    expect(grid.problem.value).toContain('Nothing was pasted. Zofia Krol, Log a: “x” is no grade.');
    paste('1\t2\n');
    expect(grid.problem.value).toContain('it has been returned');
    expect(given()).toEqual([]);
    paste('1\r\n\r\nm\r\n');
    // An empty cell stays empty: that is no change.
    expect(given()).toEqual([
      ['s2', 'a', { points: 100 }],
      ['s1', 'a', { flag: 'missing' }],
    ]);
    paste('1\n2\n3\n4\n');
    expect(grid.problem.value).toContain('larger than what is below');
    paste('1\n'.repeat(100_000));
    expect(grid.problem.value).toContain('at most 2000');
  });

  it('copies as it pastes', () => {
    let copied = '';
    grid.select({ row: 0, column: 0 });
    press('ArrowDown', { shiftKey: true, ctrlKey: true });
    grid.copy({
      clipboardData: { setData: (_: string, text: string) => (copied = text) },
      preventDefault: () => undefined,
    } as unknown as ClipboardEvent);
    expect(copied).toBe('9\n\n4');
  });

  it('takes back and does again', () => {
    type('1');
    press('Enter');
    press('z', { ctrlKey: true });
    press('z', { ctrlKey: true, shiftKey: true });
    expect(given().map((one) => (one as unknown[])[2])).toEqual([{ points: 100 }, { points: 900 }, { points: 100 }]);
    expect(applied.map(({ changes }) => changes[0]!.was?.points)).toEqual([900, undefined, undefined]);
    expect(applied[1]!.why).toBe('taken back');
  });

  it('stays at its student and assignment, whatever is shown', async () => {
    grid.select({ row: 2, column: 1 });
    shown.order.value = { by: 'a', down: false };
    shown.filter.value = { ...WHOLE_GRADEBOOK, term: 'Winter' };
    await nextTick();
    expect(grid.active.value).toEqual({ row: 0, column: 0 });
    expect(grid.cell.value).toMatchObject({ row: { id: 's1' }, column: { id: 'b' } });
  });

  it('reaches the course, both ends, and the desk by keys', () => {
    press('End');
    expect(grid.active.value.column).toBe(2);
    press('Home');
    expect(grid.active.value.column).toBe(COURSE_COLUMN);
    press('PageDown');
    expect(grid.active.value.row).toBe(2);
    grid.select({ row: 0, column: 1 });
    press('o');
    expect(opened).toMatchObject([{ submission: 'w' }]);
  });

  it('fills a column, and gives out what was typed', () => {
    const [first] = shown.columns.value;
    grid.giveAll(first!, shown.rows.value, { points: 1000 });
    grid.giveAll(first!, [shown.rows.value[0]!], { returned: true });
    expect(given()).toEqual([
      ['s2', 'a', { points: 1000 }],
      ['s3', 'a', { points: 1000 }],
      ['s1', 'a', { points: 1000 }],
      ['s2', 'a', { returned: true }],
    ]);
    expect(computed(() => grid.canUndo.value).value).toBe(true);
  });
});

describe('a cell in words and signs', () => {
  it('tells drafts from what was returned, and says what was heard', () => {
    const draft = cell({ state: 'begun', submission: 'w', spoken: 3, heard: 2, late: true, entered: false });
    expect([isDraft(draft), signOf(draft)]).toEqual([true, '◐']);
    expect(cellWords(draft)).toBe('7 of 10, begun, late, 3 spoken remarks, 2 heard');
    expect(cellWords(cell({ returned: true }))).toBe('7 of 10, typed and returned');
    expect(cellWords(cell({ points: null, flag: 'excused', entered: false }))).toBe('excused, not handed in');
    expect(cellWords(null)).toBe('nothing yet');
  });

  it('is shown as one likes', () => {
    const one = cell({ points: 725, grade: 'Merit' });
    expect(['points', 'percent', 'level'].map((as) => resultWords(one, as as 'points'))).toEqual([
      '7.25',
      '72.5 %',
      'Merit',
    ]);
  });
});

describe('what is on its way', () => {
  const id = (digit: string): string => `00000000-0000-4000-8000-00000000000${digit}`;
  const place = { assignment: id('1'), student: id('2') };
  const was = { points: 400, flag: null, returned: false };
  const change: ChangedCells = {
    changes: [{ ...place, to: { points: 500 }, was, named: 'Zofia Krol, Log a' }],
    why: '',
  };

  it('is read back as it was kept', () => {
    expect(gradebookSubject.read(change, 2)).toEqual({ change, touches: touchedBy(change) });
    expect(() => gradebookSubject.read({ changes: [{ to: {} }] }, 2)).toThrow();
  });

  it('is compared with what somebody else has put there, and put over it', () => {
    const now = { ...place, ...was, points: 900 };
    expect(gradebookSubject.compare!(change, now)).toEqual([{ what: 'Zofia Krol, Log a', now: '9', mine: '5' }]);
    expect(gradebookSubject.over!(change, now)).toEqual({
      ...change,
      changes: [{ ...change.changes[0], was: { ...was, points: 900 } }],
    });
  });
});
