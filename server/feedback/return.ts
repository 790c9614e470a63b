import { gradeOf } from '#core/grading';
import type { Feedback } from '../../contract/submissions.ts';
import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { selectFeedback } from './queries.ts';

/** Gives a work back to its student with the result as it stands, or takes it back to be worked on. Call in a transaction. */
export async function setReturned(
  tx: Queries,
  submission: string,
  returned: boolean,
  teacher: string,
): Promise<Feedback> {
  const reader = { teacher: true, person: teacher };
  await tx.query('select from submissions where id = $1 for update', [submission]);
  const before = await selectFeedback(tx, submission, reader);
  if (!before) throw problems.notFound();
  if ((before.returnedAt !== null) === returned) return before;
  const grade = returned ? gradeOf(before, before.scale) : undefined;
  await tx.query(
    `update submissions set returned_at = case when $2 then now() end, returned_by = case when $2 then $3::uuid end,
         points = $4::int / 100.0, possible = $5::int / 100.0, percentage = $6::int / 100.0, grade = $7
       where id = $1`,
    [
      submission,
      returned,
      teacher,
      grade?.points ?? null,
      grade?.possible ?? null,
      grade?.percentage ?? null,
      grade?.grade ?? null,
    ],
  );
  return (await selectFeedback(tx, submission, reader))!;
}
