import { Router } from 'express';
import { readFeedback, returnWork } from '../../contract/submissions.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { selectFeedback } from './queries.ts';
import { setReturned } from './return.ts';

export function feedbackRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, readFeedback, 'feedback.read', async ({ params, person, standing }) => {
    const feedback = await selectFeedback(db, params.submission, { teacher: standing.teacher, person: person.id });
    if (!feedback) throw problems.notFound();
    return feedback;
  });

  serve(router, context, returnWork, 'feedback.return', ({ params, body, person }) =>
    db.transaction((tx) => setReturned(tx, params.submission, body.returned, person.id)),
  );
  return router;
}
