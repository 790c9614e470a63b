import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import type { CourseSummary } from '../../contract/courses.ts';
import { TEACHES } from '../access/visible.ts';
import { select, type Queries } from '../db/database.ts';
import { copyHandouts } from '../handouts/queries.ts';
import { copyAssignmentNotes, copyCourseNotes } from '../notes/copy.ts';
import { insertCourse } from './queries.ts';

/** Another assignment that asks the same and is scored in the same way, for its teachers alone at first. Call in a transaction. */
export async function copyAssignment(tx: Queries, from: string, course: string, title?: string): Promise<string> {
  const id = randomUUID();
  await tx.query(
    `insert into assignments (id, course, title, brief, open, budget, shown, decimals, half_steps, possible, late_rule,
       anonymous, term, category, weight, attempts, formats, extra)
     select $1, $3, coalesce($4, title), brief, false, budget, shown, decimals, half_steps, possible, late_rule,
       anonymous, case when course = $3 then term end, category, weight, attempts, formats, extra from assignments where id = $2`,
    [id, from, course, title ?? null],
  );
  await tx.query(
    `insert into questions (id, assignment, position, kind, prompt, choices, points)
     select gen_random_uuid(), $1, position, kind, prompt, choices, points from questions where assignment = $2`,
    [id, from],
  );
  await tx.query(
    'insert into bands (assignment, grade, from_percentage) select $1, grade, from_percentage from bands where assignment = $2',
    [id, from],
  );
  await tx.query(
    `insert into criteria (id, assignment, version, position, title, description, weight, bonus)
     select gen_random_uuid(), $1, 1, k.position, k.title, k.description, k.weight, k.bonus
     from criteria k join assignments a on a.id = k.assignment and a.rubric_version = k.version where a.id = $2`,
    [id, from],
  );
  await tx.query(
    `insert into levels (id, criterion, position, title, description, points)
     select gen_random_uuid(), n.id, l.position, l.title, l.description, l.points
     from criteria k join assignments a on a.id = k.assignment and a.rubric_version = k.version
     join levels l on l.criterion = k.id join criteria n on n.assignment = $1 and n.position = k.position where a.id = $2`,
    [id, from],
  );
  await copyHandouts(tx, from, id);
  await copyAssignmentNotes(tx, from, { course, assignment: id });
  return id;
}

/** Whether somebody teaches the course that an assignment is in. */
export async function teachesAssignment(db: Queries, assignment: string, person: string): Promise<boolean> {
  const rows = await db.query(`select 1 as one from assignments a where a.id = $2 and ${TEACHES}`, [
    person,
    assignment,
  ]);
  return rows.length > 0;
}

/** A course for another year: its terms, margin key, notes and assignments, without students, works and dates. Call in a transaction. */
export async function copyCourse(tx: Queries, from: string, title: string, teacher: string): Promise<CourseSummary> {
  const copy = await insertCourse(tx, title, teacher);
  await tx.query(
    `update courses set terms = o.terms, grading = o.grading, margin_key = o.margin_key, spoken_language = o.spoken_language
     from courses o where courses.id = $1 and o.id = $2`,
    [copy.id, from],
  );
  const assignments = await select(
    tx,
    z.object({ id: Id, term: z.string().nullable() }),
    'select id, term from assignments where course = $1 order by created_at, id',
    [from],
  );
  for (const { id, term } of assignments) {
    const made = await copyAssignment(tx, id, copy.id);
    await tx.query('update assignments set term = $2 where id = $1', [made, term]);
  }
  await copyCourseNotes(tx, from, copy.id);
  return copy;
}
