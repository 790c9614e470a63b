import { Router } from 'express';
import { setAssignment } from '../../contract/assignments.ts';
import type { Context } from '../context.ts';
import { serve } from '../http/serve.ts';
import { updateBudget } from './queries.ts';

export function assignmentRoutes(context: Context): Router {
  const router = Router();
  serve(router, context, setAssignment, 'assignment.set', async ({ params, body: { budget } }) => {
    await updateBudget(context.db, params.assignment, budget);
    return { budget };
  });
  return router;
}
