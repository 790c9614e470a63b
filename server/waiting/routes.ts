import { Router } from 'express';
import { readWaiting } from '../../contract/assignments.ts';
import type { Context } from '../context.ts';
import { serve } from '../http/serve.ts';
import { selectTaught, selectToMark, selectUnanswered } from './queries.ts';

/** What waits for a teacher. */
export function waitingRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;
  serve(router, context, readWaiting, 'own', async ({ person }) => ({
    toMark: await selectToMark(db, person.id),
    unanswered: await selectUnanswered(db, person.id),
    assignments: await selectTaught(db, person.id),
  }));
  return router;
}
