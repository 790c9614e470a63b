import { Router } from 'express';
import { keepTyped, readTyped } from '../../contract/typed.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { keepTypedDraft, selectTypedDraft } from './drafts.ts';

/** A work while it is being typed. It is handed in as a file, like all others. */
export function typedRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, readTyped, 'assignment.handIn', ({ params, person }) =>
    selectTypedDraft(db, params.assignment, person.id),
  );
  serve(router, context, keepTyped, 'assignment.handIn', async ({ params, body, person }) => {
    const { assignment } = params;
    const changedAt = await keepTypedDraft(db, { assignment, student: person.id, ...body });
    if (!changedAt) throw problems.changedMeanwhile(await selectTypedDraft(db, assignment, person.id));
    return { changedAt };
  });
  return router;
}
