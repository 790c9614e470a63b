import { Router } from 'express';
import { pointsProblem, weightProblem } from '#core/grading';
import { isDeepStrictEqual } from 'node:util';
import { readRubric, readShelf, setRubric, setScale } from '../../contract/rubrics.ts';
import { setStanding } from '../../contract/assignments.ts';
import { adjustResult, giveScore, givePoints } from '../../contract/submissions.ts';
import { selectQuestions } from '../assignments/queries.ts';
import { holdForChange } from '../access/work-state.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { withHistory, withWorkHistory } from './history.ts';
import {
  deletePoints,
  deleteScore,
  selectPoints,
  selectPossible,
  selectRubric,
  selectScale,
  selectScores,
  upsertPoints,
  upsertScore,
} from './queries.ts';
import { putAdjustment, putStanding, selectAdjustment, selectBy, selectStudent } from './standing.ts';
import { addVersion, replaceRubric, replaceScale, selectScored, selectShelf } from './rubric.ts';

/** Scores and points of a work, until it is returned. */
export function gradingRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, giveScore, 'score.choose', async ({ params, body: { score, was }, person }) => {
    const { submission, criterion } = params;
    await db.transaction(async (tx) => {
      await holdForChange(tx, 'submission', submission);
      const by = await selectBy(tx, 'score', [submission, criterion]);
      if (by !== person.id) refuseIfChanged((await selectScores(tx, submission))[criterion] ?? null, score, was);
      await withWorkHistory(tx, submission, person.id, async () => {
        if (score === null) await deleteScore(tx, submission, criterion);
        else if (!(await upsertScore(tx, { submission, criterion, score, person: person.id })))
          throw problems.unknownLevel();
      });
    });
    return { scores: await selectScores(db, submission) };
  });

  serve(router, context, givePoints, 'points.give', async ({ params, body: { points, was }, person }) => {
    const { submission, question } = params;
    await db.transaction(async (tx) => {
      await holdForChange(tx, 'submission', submission);
      const by = await selectBy(tx, 'points', [submission, question]);
      if (by !== person.id) refuseIfChanged((await selectPoints(tx, submission))[question] ?? null, points, was);
      await withWorkHistory(tx, submission, person.id, async () => {
        if (points === null) await deletePoints(tx, submission, question);
        else if (!(await upsertPoints(tx, { submission, question, points, person: person.id })))
          throw problems.pointsRefused();
      });
    });
    return { points: await selectPoints(db, submission) };
  });

  serve(router, context, adjustResult, 'result.adjust', async ({ params, body: { adjustment, was }, person }) => {
    const { submission } = params;
    await db.transaction(async (tx) => {
      await holdForChange(tx, 'submission', submission);
      const by = await selectBy(tx, 'adjustment', [submission]);
      if (by !== person.id) refuseIfChanged((await selectAdjustment(tx, submission)) ?? null, adjustment, was);
      const total = adjustment?.total ?? null;
      const problem = total !== null && pointsProblem(total, await selectPossible(tx, submission));
      if (problem) throw problems.gradeRefused(problem);
      await withWorkHistory(tx, submission, person.id, () => putAdjustment(tx, submission, adjustment, person.id));
    });
    return { adjustment: (await selectAdjustment(db, submission)) ?? null };
  });

  serve(router, context, setStanding, 'standing.set', async ({ params: { assignment, student }, body, person }) => {
    const put = await db.transaction(async (tx) => {
      const meant = await selectStudent(tx, assignment, student);
      if (!meant) return false;
      const place = { assignment, student: meant.id };
      return withHistory(tx, place, person.id, () =>
        putStanding(tx, { ...place, person: person.id, nameless: meant.nameless }, body),
      );
    });
    if (!put) throw problems.notAStudent();
    return body;
  });

  serve(router, context, readRubric, 'assignment.set', async ({ params: { assignment }, person }) => ({
    rubric: await selectRubric(db, assignment),
    scale: await selectScale(db, assignment),
    scored: await selectScored(db, assignment, person.id),
  }));

  serve(router, context, setRubric, 'assignment.set', async ({ params: { assignment }, body: { rubric, move } }) => {
    await db.transaction(async (tx) => {
      await tx.query('select from assignments where id = $1 for update', [assignment]);
      const wrong = weightProblem(rubric, (await selectQuestions(tx, assignment)).length);
      if (wrong) throw problems.rubricRefused(wrong);
      if ((await selectScored(tx, assignment)).length === 0) await replaceRubric(tx, assignment, rubric);
      else await addVersion(tx, assignment, rubric, move);
    });
    return { rubric: await selectRubric(db, assignment) };
  });

  serve(router, context, setScale, 'assignment.set', async ({ params: { assignment }, body }) => {
    await db.transaction(async (tx) => {
      await tx.query('select from assignments where id = $1 for update', [assignment]);
      await replaceScale(tx, assignment, body.scale);
    });
    return { scale: await selectScale(db, assignment) };
  });

  serve(router, context, readShelf, 'own', ({ person }) => selectShelf(db, person.id));
  return router;
}

/**
 * Where two teachers score one work, none overwrites what the other has done without having seen it. One's own may change faster
 * than it is seen, and where nothing stands there is nothing to overwrite.
 */
function refuseIfChanged<T>(now: T, wanted: T, was: T | undefined): void {
  if (was === undefined || now === null || isDeepStrictEqual(now, was) || isDeepStrictEqual(now, wanted)) return;
  throw problems.changedMeanwhile(now);
}
