import { Router } from 'express';
import { MOST_HITS, searchRemarks } from '../../contract/search.ts';
import type { Context } from '../context.ts';
import { serve } from '../http/serve.ts';
import { fairTurns } from '../threads/fair-turns.ts';
import { selectHits } from './queries.ts';

/** Between two searches everybody else is answered. */
const turns = fairTurns({ atOnce: 1, each: 1, patience: 30_000 });

export function searchRoutes(context: Context): Router {
  const router = Router();
  serve(router, context, searchRemarks, 'own', async ({ body, person }) => {
    const search = { ...body, limit: MOST_HITS + 1 };
    const hits = await turns.take(person.id, () => selectHits(context.db, person.id, search));
    return { hits: hits.slice(0, MOST_HITS), more: hits.length > MOST_HITS };
  });
  return router;
}
