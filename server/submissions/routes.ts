import { Router } from 'express';
import { chooseLevel, readFeedback, readPlace, readWork, returnWork } from '../../contract/submissions.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve, serveBytes } from '../http/serve.ts';
import { sendMedium } from '../media/send.ts';
import {
  deleteScore,
  selectFeedback,
  selectPicture,
  selectPlace,
  selectScores,
  selectWork,
  upsertScore,
} from './queries.ts';
import { setReturned } from './return.ts';

export function submissionRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, readWork, 'work.read', async ({ params }) => found(await selectWork(db, params.submission)));

  serve(router, context, readPlace, 'work.place', ({ params }) => selectPlace(db, params.submission));

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

  serve(router, context, returnWork, 'feedback.return', ({ params, body, person }) =>
    db.transaction((tx) => setReturned(tx, params.submission, body.returned, person.id)),
  );

  serveBytes(router, context, '/submissions/:submission/pictures/:picture', 'work.read', async (request, response) => {
    const { submission, picture } = request.params;
    const file = /^\d{1,4}$/.test(picture!) ? await selectPicture(db, submission!, Number(picture)) : undefined;
    await sendMedium(db, found(file), request, response);
  });
  return router;
}

function found<T>(value: T | undefined): T {
  if (value === undefined) throw problems.notFound();
  return value;
}
