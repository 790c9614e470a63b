import type { CourseScheme, Gradebook, GradeCell, PlacedCell } from '#contract/gradebook';
import { MOST_CHANGES, readGradebook, setScheme } from '#contract/gradebook';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { useOutbox } from '../outbox/outbox.ts';
import { call } from '../session/api.ts';
import { SUBJECT, touchedBy, type ChangedCells } from './subject.ts';

const EMPTY: GradeCell = {
  ...{ submission: null, state: null, points: null, possible: null, grade: null, flag: null, late: false },
  ...{ entered: false, returned: false, nameless: false, again: false, spoken: 0, heard: 0, unanswered: 0 },
};

/** The gradebook of one course: as the server has it, and what of our own changes is still on the way. */
export const useGradebookStore = defineStore('gradebook', () => {
  const outbox = useOutbox();
  const fromServer = shallowRef<Gradebook>();
  /** What would be there if; nobody else sees it, and nothing of it is kept. */
  const supposed = shallowRef<readonly ChangedCells[]>([]);
  let wanted: string | undefined;
  let sent = 0;

  const onTheWay = (): readonly ChangedCells[] =>
    fromServer.value ? (outbox.changesFor(SUBJECT, fromServer.value.course.id) as ChangedCells[]) : [];

  const book = computed(() => [...onTheWay(), ...supposed.value].reduce(withChanges, fromServer.value));

  async function load(course: string): Promise<void> {
    wanted = course;
    if (fromServer.value?.course.id !== course) fromServer.value = undefined;
    const asked = sent;
    const answer = await call(readGradebook, { params: { course } });
    if (wanted !== course) return;
    // What was sent in between may be newer than the answer.
    if (sent === asked) fromServer.value = answer;
    else await load(course);
  }

  outbox.onSent(({ subject, about, change }, answer) => {
    if (subject !== SUBJECT) return;
    sent++;
    const shown = fromServer.value;
    if (!shown || about !== shown.course.id) return;
    // Another tab has sent it, or somebody else was there.
    if (answer === undefined) void load(about).catch(() => undefined);
    else fromServer.value = withCells(withChanges(shown, change as ChangedCells)!, answer as PlacedCell[]);
  });

  return {
    book,
    load,
    /** @param change what was done to some cells together */
    async change(course: string, { changes, why }: ChangedCells): Promise<void> {
      for (let from = 0; from < changes.length; from += MOST_CHANGES) {
        const change = { changes: changes.slice(from, from + MOST_CHANGES), why };
        await outbox.add({ subject: SUBJECT, about: course, touches: touchedBy(change), change });
      }
    },
    supposed: computed(() => supposed.value.flatMap(({ changes }) => changes)),
    suppose: (change: ChangedCells): void => void (supposed.value = [...supposed.value, change]),
    forgetSupposed: (): void => void (supposed.value = []),
    async setScheme(course: string, scheme: CourseScheme): Promise<void> {
      await call(setScheme, { params: { course }, body: scheme });
      if (fromServer.value?.course.id === course) fromServer.value = { ...fromServer.value, scheme };
    },
  };
});

/** Rows in which nothing changes stay the same, so that nothing is drawn or computed anew for them. */
function withCells(book: Gradebook, cells: readonly PlacedCell[]): Gradebook {
  const columnOf = new Map(book.columns.map(({ id }, index) => [id, index]));
  const byStudent = new Map<string, PlacedCell[]>();
  for (const one of cells) byStudent.set(one.student, [...(byStudent.get(one.student) ?? []), one]);
  return {
    ...book,
    rows: book.rows.map((row) => {
      const own = byStudent.get(row.id);
      if (!own) return row;
      const next = [...row.cells];
      for (const { assignment, cell } of own) {
        const column = columnOf.get(assignment);
        if (column !== undefined) next[column] = cell;
      }
      return { ...row, cells: next };
    }),
  };
}

/** How cells will look once the server has what was done to them. */
function withChanges(book: Gradebook | undefined, { changes }: ChangedCells): Gradebook | undefined {
  if (!book) return book;
  const columnOf = new Map(book.columns.map(({ id }, index) => [id, index]));
  const rowOf = new Map(book.rows.map((row) => [row.id, row]));
  const cells = changes.flatMap(({ assignment, student, to }): PlacedCell[] => {
    const [index, row] = [columnOf.get(assignment), rowOf.get(student)];
    if (index === undefined || !row) return [];
    const possible = book.columns[index]!.possible;
    return [{ assignment, student, cell: changed(row.cells[index] ?? EMPTY, to, possible) }];
  });
  return withCells(book, cells);
}

function changed(cell: GradeCell, to: ChangedCells['changes'][number]['to'], possible: number | null): GradeCell {
  const flag = to.flag === undefined ? cell.flag : to.flag;
  const typed = to.points === undefined ? cell.points : to.points;
  const points = flag === null ? typed : flag === 'missing' && possible !== null ? 0 : null;
  return {
    ...cell,
    ...{ flag, points },
    possible: cell.possible ?? possible,
    // Its band comes with the answer.
    grade: points === cell.points ? cell.grade : null,
    entered: cell.submission === null && points !== null,
    returned: to.returned ?? (to.points === undefined && cell.returned),
  };
}
