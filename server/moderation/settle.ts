import { pointsOf, type Rubric } from '#core/grading';
import { z } from 'zod';
import { Scores } from '../../contract/grading.ts';
import { selectOne, type Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { withWorkHistory } from '../grading/history.ts';
import { upsertScore } from '../grading/queries.ts';
import { putAdjustment, selectAdjustment } from '../grading/standing.ts';
import { takeBack } from '../feedback/return.ts';
import { NEWEST } from '../submissions/state.ts';

interface Settlement {
  moderation: string;
  work: string;
  rubric: Rubric;
  scores: Scores;
  why: string;
  person: string;
}

const StateRow = z.object({ returned: z.boolean(), applies: z.boolean() });

/** Keeps what was agreed on. A work that has not been returned is given it. Call in a transaction. */
export async function settle(tx: Queries, settlement: Settlement): Promise<void> {
  const { moderation, work, rubric, scores, why, person } = settlement;
  refuseOthers(rubric, scores);
  const { returned, applies } = await holdWork(tx, moderation, work);
  await tx.query(
    `update moderated_works set settled_scores = $3, settled_by = $4, settled_at = now(), why = $5
     where moderation = $1 and work = $2`,
    [moderation, work, JSON.stringify(scores), person, why],
  );
  if (!returned && applies) await give(tx, settlement);
}

const SettledRow = z.object({ scores: Scores, why: z.string() });

/** Gives the work what was settled, in place of a set total; a work that has been returned is taken back. Call in a transaction. */
export async function applySettled(tx: Queries, moderation: string, work: string, person: string): Promise<void> {
  const { applies } = await holdWork(tx, moderation, work);
  const settled = await selectOne(
    tx,
    SettledRow,
    `select settled_scores as scores, why from moderated_works
     where moderation = $1 and work = $2 and settled_scores is not null`,
    [moderation, work],
  );
  if (!settled || !applies) throw problems.cannotApply();
  await takeBack(tx, work, person);
  await give(tx, { work, person, ...settled, withoutTotal: true });
}

/** @throws ProblemError where there is no such work any more */
async function holdWork(tx: Queries, moderation: string, work: string): Promise<z.infer<typeof StateRow>> {
  const state = await selectOne(
    tx,
    StateRow,
    `select s.returned_at is not null as returned,
       ${NEWEST} and coalesce(s.rubric_version, a.rubric_version) = d.rubric_version as applies
     from moderated_works w join moderations d on d.id = w.moderation join submissions s on s.id = w.work
     join assignments a on a.id = s.assignment where w.moderation = $1 and w.work = $2 and s.withdrawn_at is null
     for update of s, w`,
    [moderation, work],
  );
  if (!state) throw problems.notFound();
  return state;
}

type Given = Pick<Settlement, 'work' | 'scores' | 'why' | 'person'> & { withoutTotal?: boolean };

async function give(tx: Queries, { work, scores, why, person, withoutTotal = false }: Given): Promise<void> {
  const change = async (): Promise<void> => {
    for (const [criterion, score] of Object.entries(scores))
      if (!(await upsertScore(tx, { submission: work, criterion, score, person }))) throw problems.unknownLevel();
    const adjustment = withoutTotal ? await selectAdjustment(tx, work) : undefined;
    if (adjustment) await putAdjustment(tx, work, { ...adjustment, total: null }, person);
  };
  await withWorkHistory(tx, work, person, change, `settled after a second marking: ${why}`);
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
