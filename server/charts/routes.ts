import { Router } from 'express';
import { readCharts, readVoice } from '../../contract/charts.ts';
import type { Context } from '../context.ts';
import { serve } from '../http/serve.ts';
import { selectCharts, selectVoice } from './queries.ts';

/** What results and remarks look like across a class. */
export function chartRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, readCharts, 'assignment.oversee', ({ params, person }) =>
    selectCharts(db, params.assignment, person.id),
  );
  serve(router, context, readVoice, 'course.set', ({ params, person }) => selectVoice(db, params.course, person.id));
  return router;
}
