import { pointsOf, type Rubric, type Scores } from '#core/grading';
import { z } from 'zod';
import type { Queries } from '../db/database.ts';
import { selectOne } from '../db/database.ts';
import { problems } from '../errors.ts';
import { withWorkHistory } from '../grading/history.ts';
import { upsertScore } from '../grading/queries.ts';

interface Settlement {
  moderation: string;
  work: string;
  rubric: Rubric;
  scores: Scores;
  why: string;
  person: string;
}

const StateRow = z.object({ returned: z.boolean(), same: z.boolean() });

/**
 * Keeps what was agreed on. A work that has not been returned is given it. Call in a transaction.
 * @returns whether it was given
 */
export async function settle(tx: Queries, settlement: Settlement): Promise<boolean> {
  const { moderation, work, rubric, scores, why, person } = settlement;
  refuseOthers(rubric, scores);
  const state = await selectOne(
    tx,
    StateRow,
    `select s.returned_at is not null as returned, coalesce(s.rubric_version, a.rubric_version) = d.rubric_version as same
     from moderated_works w join moderations d on d.id = w.moderation join submissions s on s.id = w.work
     join assignments a on a.id = s.assignment where w.moderation = $1 and w.work = $2 and s.withdrawn_at is null
     for update of s, w`,
    [moderation, work],
  );
  if (!state) throw problems.notFound();
  await tx.query(
    `update moderated_works set settled_scores = $3, settled_by = $4, settled_at = now(), why = $5
     where moderation = $1 and work = $2`,
    [moderation, work, JSON.stringify(scores), person, why],
  );
  if (state.returned || !state.same) return false;
  const give = async (): Promise<void> => {
    for (const [criterion, score] of Object.entries(scores))
      if (!(await upsertScore(tx, { submission: work, criterion, score, person }))) throw problems.unknownLevel();
  };
  await withWorkHistory(tx, work, person, give, `settled after a second marking: ${why}`);
  return true;
}

/** Each criterion has a score, and one that it gives. */
function refuseOthers(rubric: Rubric, scores: Scores): void {
  if (Object.keys(scores).length !== rubric.length) throw problems.unknownLevel();
  for (const criterion of rubric) {
    const score = scores[criterion.id];
    if (!score) throw problems.unknownLevel();
    try {
      pointsOf(criterion, score);
    } catch {
      throw problems.unknownLevel();
    }
  }
}
