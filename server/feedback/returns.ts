import { createHash } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import { z } from 'zod';
import { Hundredths, Id, Instant } from '../../contract/basics.ts';
import { Grade, Scores } from '../../contract/grading.ts';
import type { Remark } from '../../contract/remarks.ts';
import type { Feedback, ReturnChange } from '../../contract/submissions.ts';
import { select, type Queries } from '../db/database.ts';

/** What a student was given at one return. */
const Given = z.object({
  /** By their ids, a digest of what each says. */
  remarks: z.record(Id, z.string()),
  scores: Scores,
  points: z.record(Id, Hundredths),
  grade: Grade.nullable(),
});
type Given = z.infer<typeof Given>;

const ReturnRow = z.object({ at: Instant, given: Given });

/** The first one first. */
export const selectReturns = (db: Queries, submission: string): Promise<z.infer<typeof ReturnRow>[]> =>
  select(db, ReturnRow, 'select returned_at as at, given from returns where submission = $1 order by number', [
    submission,
  ]);

export async function insertReturn(
  db: Queries,
  submission: string,
  given: Given,
  teacher: string | null,
): Promise<void> {
  await db.query(
    `insert into returns (submission, number, returned_by, given)
     select $1, 1 + coalesce(max(number), 0), $2, $3::jsonb from returns where submission = $1`,
    [submission, teacher, JSON.stringify(given)],
  );
}

export const givenOf = ({ remarks, scores, points, grade }: Feedback): Given => ({
  remarks: Object.fromEntries(remarks.filter((one) => !one.private).map((one) => [one.id, digestOf(one)])),
  ...{ scores, points, grade },
});

/** Digests made before everything counted begin with none; what differs from those is not known to have changed. */
const ALL = 'all:';

/** Of all that the teacher said, whatever a remark may say one day; not of what became of it since. */
function digestOf({
  id: _id,
  author: _author,
  private: _private,
  madeAt: _madeAt,
  takenAt: _takenAt,
  dealtAt: _dealtAt,
  settled: _settled,
  replies: _replies,
  recording,
  ...said
}: Remark): string {
  const sound = recording && [recording.sound.sha256, recording.edit, recording.transcript?.text];
  const text = JSON.stringify([Object.entries(said).sort(([a], [b]) => (a < b ? -1 : 1)), sound]);
  return `${ALL}${createHash('sha256').update(text).digest('base64url').slice(0, 22)}`;
}

const differ = (before: string, now: string): boolean => before !== now && before.startsWith(ALL);

/** What the newest of several returns changed. */
export function changeOf(returns: readonly z.infer<typeof ReturnRow>[]): ReturnChange | null {
  const [before, now] = [returns.at(-2)?.given, returns.at(-1)?.given];
  if (!before || !now) return null;
  const ids = Object.keys(now.remarks);
  return {
    added: ids.filter((id) => !(id in before.remarks)),
    changed: ids.filter((id) => id in before.remarks && differ(before.remarks[id]!, now.remarks[id]!)),
    gone: Object.keys(before.remarks).filter((id) => !(id in now.remarks)).length,
    scores: [...differing(before.scores, now.scores), ...differing(before.points, now.points)],
    grade: isDeepStrictEqual(before.grade, now.grade) ? null : before.grade,
  };
}

const differing = (before: Record<string, unknown>, now: Record<string, unknown>): string[] =>
  [...new Set([...Object.keys(before), ...Object.keys(now)])].filter((id) => !isDeepStrictEqual(before[id], now[id]));
