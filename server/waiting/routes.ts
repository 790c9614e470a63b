import { nextInQueue, queueOf } from '#core/workflow';
import { Router } from 'express';
import { readNextWaiting, readWaiting } from '../../contract/waiting.ts';
import type { Context } from '../context.ts';
import { serve } from '../http/serve.ts';
import { selectQueue, selectTaught, selectWaited } from './queries.ts';

/** What waits for a teacher. */
export function waitingRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;
  serve(router, context, readWaiting, 'own', async ({ person, body: { most, ...filter } }) => {
    const { shown, ...hidden } = queueOf(await selectQueue(db, person.id), filter);
    const items = await selectWaited(db, shown.slice(0, most), person.id);
    return { items, shown: shown.length, ...hidden, assignments: await selectTaught(db, person.id) };
  });
  serve(router, context, readNextWaiting, 'own', async ({ person, body: { after, ...filter } }) => {
    const next = nextInQueue(queueOf(await selectQueue(db, person.id), filter).shown, after);
    return { next: next ? { submission: next.submission, remark: next.remark ?? null } : null };
  });
  return router;
}
