import type { Queries } from '../db/database.ts';

/** Whether somebody is a student of the course that an assignment is set in. */
export async function learnsIn(db: Queries, assignment: string, person: string): Promise<boolean> {
  const rows = await db.query(
    `select 1 as one from assignments a join enrolments e on e.course = a.course
     where a.id = $1 and e.person = $2 and e.role = 'student'`,
    [assignment, person],
  );
  return rows.length > 0;
}
