import { Router } from 'express';
import { readOwnWork } from '../../contract/assignments.ts';
import type { Context } from '../context.ts';
import { serve } from '../http/serve.ts';
import { selectOwnWork } from './queries.ts';

/** What a student has to hand in and has handed in. */
export function ownWorkRoutes(context: Context): Router {
  const router = Router();
  serve(router, context, readOwnWork, 'own', ({ person }) => selectOwnWork(context.db, person.id));
  return router;
}
