import type { Outgoing, OutgoingResult } from '#core/oneroster';
import { z } from 'zod';
import { Id, Instant } from '../../contract/basics.ts';
import type { GradeCell } from '../../contract/gradebook.ts';
import { select, type Queries } from '../db/database.ts';
import { selectGradebook } from '../gradebook/gradebook.ts';
import { placeOf } from '../grading/cells.ts';
import { selectMembers } from '../roster/queries.ts';
import { selectSchool } from '../school/people.ts';

/** A course as one of its teachers sees it, for the files. */
export async function selectOutgoing(db: Queries, course: string, person: string): Promise<Outgoing> {
  const book = await selectGradebook(db, course, person);
  const school = await selectSchool(db);
  const given = await selectGiven(db, course);
  const members = await selectMembers(db, course);
  return {
    now: new Date().toISOString(),
    zone: school.zone,
    school,
    ...{ course: book.course, terms: book.terms },
    people: members.filter(({ left }) => !left),
    items: book.columns,
    results: book.rows
      .filter(({ left }) => !left)
      .flatMap(({ id: student, cells }) =>
        cells.flatMap((cell, at) =>
          cell && !cell.nameless && (cell.points !== null || cell.flag !== null || cell.submission !== null)
            ? [resultOf(cell, student, book.columns[at]!.id)]
            : [],
        ),
      ),
  };
  function resultOf(cell: GradeCell, student: string, item: string): OutgoingResult {
    const givenAt = given.get(placeOf({ assignment: item, student })) ?? null;
    return { ...cell, student, item, submitted: cell.submission !== null, givenAt };
  }
}

const GivenRow = z.object({ assignment: Id, student: Id, at: Instant });

/** When each result was given: returned, typed, scored, or decided by a flag, whatever came last. */
async function selectGiven(db: Queries, course: string): Promise<Map<string, string>> {
  const rows = await select(
    db,
    GivenRow,
    `select x.assignment, x.student, max(x.at) as at from (
       select s.assignment, s.student, s.returned_at as at from submissions s where s.withdrawn_at is null
       union all select s.assignment, s.student, k.chosen_at from scores k join submissions s on s.id = k.submission
         where s.returned_at is null and s.withdrawn_at is null
       union all select g.assignment, g.student, greatest(g.entered_at, g.returned_at) from entered_grades g
       union all select d.assignment, d.student, d.set_at from standings d where d.flag is not null) x
     join assignments a on a.id = x.assignment and a.course = $1 where x.at is not null group by x.assignment, x.student`,
    [course],
  );
  return new Map(rows.map(({ at, ...place }) => [placeOf(place), at]));
}
