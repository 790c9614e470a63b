import { Router } from 'express';
import { readAssignment } from '../../contract/assignments.ts';
import { readClass } from '../../contract/submissions.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { selectClass, selectOverview } from './queries.ts';

/** The students of an assignment, and how far each of them is. */
export function classRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, readAssignment, 'assignment.oversee', async ({ params, person }) => {
    const overview = await selectOverview(db, params.assignment, person.id);
    if (!overview) throw problems.notFound();
    return overview;
  });

  serve(router, context, readClass, 'work.class', ({ params, person }) =>
    selectClass(db, params.submission, person.id),
  );
  return router;
}
