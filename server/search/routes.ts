import { Router } from 'express';
import { MOST_HITS, searchRemarks } from '../../contract/search.ts';
import type { Context } from '../context.ts';
import { serve } from '../http/serve.ts';
import { selectHits } from './queries.ts';

export function searchRoutes(context: Context): Router {
  const router = Router();
  serve(router, context, searchRemarks, 'own', async ({ body, person }) => {
    const hits = await selectHits(context.db, person.id, { ...body, limit: MOST_HITS + 1 });
    return { hits: hits.slice(0, MOST_HITS), more: hits.length > MOST_HITS };
  });
  return router;
}
