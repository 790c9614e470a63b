import { Router } from 'express';
import { readRubric, readShelf, setRubric } from '../../contract/rubrics.ts';
import { chooseLevel, givePoints } from '../../contract/submissions.ts';
import { holdForChange } from '../access/work-state.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import {
  deletePoints,
  deleteScore,
  selectPoints,
  selectRubric,
  selectScale,
  selectScores,
  upsertPoints,
  upsertScore,
} from './queries.ts';
import { replaceRubric, selectScored, selectShelf } from './rubric.ts';

/** Scores and points of a work, until it is returned. */
export function gradingRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, chooseLevel, 'score.choose', async ({ params, body, person }) => {
    const { submission, criterion } = params;
    await db.transaction(async (tx) => {
      await holdForChange(tx, 'submission', submission);
      if (body.level === null) await deleteScore(tx, submission, criterion);
      else if (!(await upsertScore(tx, { submission, criterion, level: body.level, person: person.id })))
        throw problems.unknownLevel();
    });
    return { scores: await selectScores(db, submission) };
  });

  serve(router, context, givePoints, 'points.give', async ({ params, body, person }) => {
    const { submission, question } = params;
    await db.transaction(async (tx) => {
      await holdForChange(tx, 'submission', submission);
      if (body.points === null) await deletePoints(tx, submission, question);
      else if (!(await upsertPoints(tx, { submission, question, points: body.points, person: person.id })))
        throw problems.pointsRefused();
    });
    return { points: await selectPoints(db, submission) };
  });
  const rubricOf = async (assignment: string) => ({
    rubric: await selectRubric(db, assignment),
    scale: await selectScale(db, assignment),
  });

  serve(router, context, readRubric, 'assignment.set', async ({ params }) => ({
    ...(await rubricOf(params.assignment)),
    scored: await selectScored(db, params.assignment),
  }));

  serve(router, context, setRubric, 'assignment.set', async ({ params: { assignment }, body }) => {
    await db.transaction(async (tx) => {
      await tx.query('select from assignments where id = $1 for update', [assignment]);
      const scored = await selectScored(tx, assignment);
      if (scored > 0) throw problems.rubricInUse(scored);
      await replaceRubric(tx, assignment, body.rubric, body.scale);
    });
    return rubricOf(assignment);
  });

  serve(router, context, readShelf, 'own', ({ person }) => selectShelf(db, person.id));
  return router;
}
