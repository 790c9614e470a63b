import { wordlessLeaves } from '#core/folio';
import { Router } from 'express';
import { readRecognised, type Recognised } from '../../contract/recognised.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { selectFolio } from '../submissions/queries.ts';
import { queueRecognition, selectRecognised } from './jobs.ts';

/** Words in scanned and photographed pages. Who opens such a work first has them read. */
export function recognitionRoutes(context: Context): Router {
  const router = Router();
  const { db, recognition } = context;
  serve(router, context, readRecognised, 'work.read', async ({ params: { submission } }): Promise<Recognised> => {
    const known = await selectRecognised(db, submission);
    if (known && (recognition.on || known.state === 'done')) return known;
    if (!recognition.on) return { state: 'off', leaves: [] };
    const folio = await selectFolio(db, submission);
    if (!folio) throw problems.notFound();
    if (wordlessLeaves(folio).length === 0) return { state: 'done', leaves: [] };
    await queueRecognition(db, submission);
    recognition.wake();
    return { state: 'waiting', leaves: [] };
  });
  return router;
}
