import type { Outgoing } from '#core/oneroster';
import type { Queries } from '../db/database.ts';
import { selectGradebook } from '../gradebook/gradebook.ts';
import { selectMembers } from '../roster/queries.ts';
import { selectSchoolName } from '../school/people.ts';

/** A course as one of its teachers sees it, for the files. */
export async function selectOutgoing(db: Queries, course: string, person: string): Promise<Outgoing> {
  const book = await selectGradebook(db, course, person);
  const members = await selectMembers(db, course);
  return {
    today: new Date().toISOString().slice(0, 10),
    school: (await selectSchoolName(db)) ?? 'School',
    ...{ course: book.course, terms: book.terms },
    people: members.filter(({ left }) => !left),
    items: book.columns,
    results: book.rows
      .filter(({ left }) => !left)
      .flatMap(({ id: student, cells }) =>
        cells.flatMap((cell, at) =>
          cell && !cell.nameless && (cell.points !== null || cell.flag !== null)
            ? [{ ...cell, student, item: book.columns[at]!.id }]
            : [],
        ),
      ),
  };
}
