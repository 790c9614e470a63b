import { Router } from 'express';
import { beHere, PRESENCE_SECONDS } from '../../contract/presence.ts';
import type { Context } from '../context.ts';
import { serve } from '../http/serve.ts';
import { presence } from './here.ts';

/** Teachers at one work see that they are two. */
export function presenceRoutes(context: Context): Router {
  const router = Router();
  // One message may get lost.
  const here = presence(PRESENCE_SECONDS * 2500);
  serve(router, context, beHere, 'work.class', ({ params, person }) =>
    Promise.resolve({ others: here.note(params.submission, person.id, person.name, Date.now()) }),
  );
  return router;
}
