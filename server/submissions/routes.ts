import { Router } from 'express';
import {
  chooseLevel,
  givePoints,
  readClass,
  readFeedback,
  readWork,
  returnWork,
  withdrawWork,
} from '../../contract/submissions.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve, serveBytes } from '../http/serve.ts';
import { sendMedium } from '../media/send.ts';
import {
  deletePoints,
  deleteScore,
  markOpened,
  selectClass,
  selectFeedback,
  selectFile,
  selectPoints,
  selectScores,
  selectWork,
  updateWithdrawn,
  upsertPoints,
  upsertScore,
} from './queries.ts';
import { setReturned } from './return.ts';

export function submissionRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, readWork, 'work.read', async ({ params, standing }) => {
    if (standing.teacher && !standing.opened) await markOpened(db, params.submission);
    return found(await selectWork(db, params.submission));
  });

  serve(router, context, withdrawWork, 'work.withdraw', async ({ params, body }) => {
    if (!(await updateWithdrawn(db, params.submission, body.withdrawn))) throw problems.opened();
    return {};
  });

  serve(router, context, readClass, 'work.class', ({ params }) => selectClass(db, params.submission));

  serve(router, context, readFeedback, 'feedback.read', async ({ params, standing }) =>
    found(await selectFeedback(db, params.submission, standing.teacher ? 'teacher' : 'student')),
  );

  serve(router, context, chooseLevel, 'score.choose', async ({ params, body, person }) => {
    const { submission, criterion } = params;
    if (body.level === null) await deleteScore(db, submission, criterion);
    else if (!(await upsertScore(db, { submission, criterion, level: body.level, person: person.id })))
      throw problems.unknownLevel();
    return { scores: await selectScores(db, submission) };
  });

  serve(router, context, givePoints, 'points.give', async ({ params, body, person }) => {
    const { submission, question } = params;
    if (body.points === null) await deletePoints(db, submission, question);
    else if (!(await upsertPoints(db, { submission, question, points: body.points, person: person.id })))
      throw problems.pointsRefused();
    return { points: await selectPoints(db, submission) };
  });

  serve(router, context, returnWork, 'feedback.return', ({ params, body, person }) =>
    db.transaction((tx) => setReturned(tx, params.submission, body.returned, person.id)),
  );

  const serveFiles = (path: string, table: 'submission_files' | 'submission_pictures'): void =>
    serveBytes(router, context, path, 'work.read', async (request, response) => {
      const { submission, position } = request.params;
      const file = /^\d{1,4}$/.test(position!) ? await selectFile(db, table, submission!, Number(position)) : undefined;
      await sendMedium(db, found(file), request, response);
    });
  serveFiles('/submissions/:submission/files/:position', 'submission_files');
  serveFiles('/submissions/:submission/pictures/:position', 'submission_pictures');
  return router;
}

function found<T>(value: T | undefined): T {
  if (value === undefined) throw problems.notFound();
  return value;
}
