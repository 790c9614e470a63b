import { formatHundredths } from '#core/grading';
import { CellChange, CellChanges, CellValue, changeCells, type PlacedCell } from '#contract/gradebook';
import { Id } from '#contract/basics';
import { z } from 'zod';
import type { Subject } from '../outbox/subjects.ts';
import { call } from '../session/api.ts';

/** Cells that were changed together, on their way to the server. */
export const ChangedCells = CellChanges.extend({
  changes: z.array(
    CellChange.extend({
      /** Whose grade in what it is, for somebody who has to choose between two. */
      named: z.string(),
    }),
  ),
});
export type ChangedCells = z.infer<typeof ChangedCells>;

/** The name of our changes in the outbox. */
export const SUBJECT = 'gradebook';

const Met = CellValue.extend({ assignment: Id, student: Id });

const wordsOf = ({ points, flag }: { points?: number | null | undefined; flag?: string | null | undefined }): string =>
  flag ?? ((points ?? null) === null ? 'nothing' : formatHundredths(points!));

/** How changes of the gradebook are read back from the browser's storage and sent. */
export const gradebookSubject: Subject<ChangedCells> = {
  read(kept) {
    const change = ChangedCells.parse(kept);
    return { change, touches: touchedBy(change) };
  },
  async send(course, { changes, why }): Promise<PlacedCell[]> {
    const body = { changes: changes.map(({ named: _, ...change }) => change), why };
    return (await call(changeCells, { params: { course }, body })).cells;
  },
  compare({ changes }, now) {
    const met = Met.parse(now);
    return changes.filter(isAt(met)).map(({ named, to }) => ({ what: named, now: wordsOf(met), mine: wordsOf(to) }));
  },
  over({ changes, why }, now) {
    const { assignment, student, ...was } = Met.parse(now);
    return { why, changes: changes.map((one) => (isAt({ assignment, student })(one) ? { ...one, was } : one)) };
  },
};

interface Place {
  assignment: string;
  student: string;
}

const isAt =
  ({ assignment, student }: Place) =>
  (one: Place): boolean =>
    one.assignment === assignment && one.student === student;

export const placeName = ({ assignment, student }: Place): string => `${assignment} ${student}`;

export const touchedBy = ({ changes }: ChangedCells): string[] => changes.map(placeName);
