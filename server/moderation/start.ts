import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import { copyAssignment } from '../courses/copy.ts';
import { selectOne, type Queries } from '../db/database.ts';
import { enrol } from '../school/people.ts';

interface NewModeration {
  assignment: string;
  marker: string;
  person: string;
  works: readonly { work: string; reason: string }[];
  /** What they were drawn with. */
  seed: string;
}

const TitleRow = z.object({ course: Id, title: z.string(), version: z.int() });

/**
 * The works come once more, without names, in an assignment of a course that the second marker alone teaches: so everything that
 * can be said at a desk can be said there, and nobody sees it. Call in a transaction.
 */
export async function insertModeration(
  tx: Queries,
  { assignment, marker, person, works, seed }: NewModeration,
): Promise<string> {
  const { course, title, version } = (await selectOne(
    tx,
    TitleRow,
    'select course, title, rubric_version as version from assignments where id = $1 for update',
    [assignment],
  ))!;
  const hidden = randomUUID();
  await tx.query(
    `insert into courses (id, title, second_marking, margin_key, spoken_language)
     select $1, title, true, margin_key, spoken_language from courses where id = $2`,
    [hidden, course],
  );
  await enrol(tx, hidden, marker, 'teacher');
  const second = await copyAssignment(tx, assignment, hidden, `Second marking: ${title}`);
  await tx.query('update assignments set anonymous = true where id = $1', [second]);

  const moderation = randomUUID();
  await tx.query(
    `insert into moderations (id, assignment, rubric_version, second_assignment, marker, started_by, seed)
     values ($1, $2, $3, $4, $5, $6, $7)`,
    [moderation, assignment, version, second, marker, person, seed],
  );
  for (const { work, reason } of works) {
    const copy = await copyWork(tx, work, second);
    await tx.query('insert into moderated_works (moderation, work, second_work, reason) values ($1, $2, $3, $4)', [
      ...[moderation, work, copy, reason],
    ]);
  }
  // Works of those who are no students there are shown all the same.
  await tx.query(
    `insert into enrolments (course, person, role)
     select distinct $1::uuid, student, 'left' from submissions where assignment = $2`,
    [hidden, second],
  );
  return moderation;
}

/** The same work in another assignment. What it is made of is kept once. */
async function copyWork(tx: Queries, work: string, assignment: string): Promise<string> {
  const id = randomUUID();
  await tx.query(
    `insert into submissions (id, assignment, student, version, folio, handed_in_at, opened_at)
     select $1, $2, student, 1, folio, handed_in_at, now() from submissions where id = $3`,
    [id, assignment, work],
  );
  await tx.query(
    `insert into submission_files (submission, position, name, format, file)
     select $1, position, name, format, file from submission_files where submission = $2`,
    [id, work],
  );
  await tx.query(
    `insert into submission_pictures (submission, position, file)
     select $1, position, file from submission_pictures where submission = $2`,
    [id, work],
  );
  return id;
}
