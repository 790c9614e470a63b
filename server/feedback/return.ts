import { outcomeOf } from '#core/grading';
import type { Feedback } from '../../contract/submissions.ts';
import { asTeacher } from '../access/visible.ts';
import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { withWorkHistory } from '../grading/history.ts';
import { selectFeedback } from './queries.ts';
import { givenOf, insertReturn } from './returns.ts';

/** For so long a return can be taken back as if it had never been, in seconds. */
export const REGRET_SECONDS = 60;

/**
 * Gives a work back to its student with the result as it stands, all of it or nothing; one that is returned already stays as it
 * is. Call in a transaction.
 * @param teacher null where it goes out at the time that was set
 * @param held what its student does not see yet
 */
export async function returnWork(
  tx: Queries,
  submission: string,
  teacher: string | null,
  held: Feedback['held'] = null,
): Promise<boolean> {
  const [row] = await tx.query('select returned_at, withdrawn_at from submissions where id = $1 for update', [
    submission,
  ]);
  if (!row || row.withdrawn_at !== null || row.returned_at !== null) return false;
  const feedback = (await selectFeedback(tx, submission, asTeacher))!;
  const { grade } = outcomeOf(feedback);
  await withWorkHistory(tx, submission, teacher, () =>
    tx.query(
      `update submissions set returned_at = now(), returned_by = $2, held = $3, ready_at = null, return_at = null,
         points = $4::int / 100.0, possible = $5::int / 100.0, percentage = $6::int / 100.0, grade = $7, explanation = $8
       where id = $1`,
      [
        ...[submission, teacher, held],
        ...[grade?.points ?? null, grade?.possible ?? null, grade?.percentage ?? null],
        ...[grade?.grade ?? null, grade?.explanation ?? null],
      ],
    ),
  );
  await insertReturn(tx, submission, givenOf({ ...feedback, grade }), teacher);
  return true;
}

/** What was held back of a returned work goes out. Call in a transaction. */
export async function releaseHeld(tx: Queries, submission: string, teacher: string): Promise<boolean> {
  const rows = await withWorkHistory(tx, submission, teacher, () =>
    tx.query(
      'update submissions set held = null where id = $1 and returned_at is not null and held is not null returning 1 as one',
      [submission],
    ),
  );
  return rows.length > 0;
}

/**
 * Takes a work back to be worked on. Within a minute it is as if it had never gone out; what comes later is a correction, and its
 * student will see what changed. Call in a transaction.
 * @param soon only within that minute
 */
export async function takeBack(tx: Queries, submission: string, teacher: string, soon = false): Promise<boolean> {
  const [row] = await tx.query(
    `select returned_at > now() - make_interval(secs => $2) as regretted from submissions
     where id = $1 and returned_at is not null for update`,
    [submission, REGRET_SECONDS],
  );
  if (!row || (soon && !row.regretted)) return false;
  await withWorkHistory(tx, submission, teacher, () =>
    tx.query(
      `update submissions set returned_at = null, returned_by = null, held = null, points = null, possible = null,
         percentage = null, grade = null, explanation = null where id = $1`,
      [submission],
    ),
  );
  if (row.regretted)
    await tx.query(
      'delete from returns where submission = $1 and number = (select max(number) from returns where submission = $1)',
      [submission],
    );
  return true;
}

/** Gives a work back, or takes it back. Call in a transaction. */
export async function setReturned(
  tx: Queries,
  submission: string,
  returned: boolean,
  teacher: string,
): Promise<Feedback> {
  if (returned) await returnWork(tx, submission, teacher);
  else await takeBack(tx, submission, teacher);
  const feedback = await selectFeedback(tx, submission, { teacher: true, person: teacher });
  if (!feedback) throw problems.notFound();
  return feedback;
}
