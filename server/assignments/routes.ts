import { Router } from 'express';
import { setAssignment, setQuestions } from '../../contract/assignments.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { isAnswered, replaceQuestions, selectQuestions, updateAssignment } from './queries.ts';

/** What a teacher sets. */
export function assignmentRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, setAssignment, 'assignment.set', ({ params, body }) =>
    db.transaction((tx) => updateAssignment(tx, params.assignment, body)),
  );

  serve(router, context, setQuestions, 'assignment.set', async ({ params, body }) => {
    await db.transaction(async (tx) => {
      await tx.query('select from assignments where id = $1 for update', [params.assignment]);
      if (await isAnswered(tx, params.assignment)) throw problems.questionsAnswered();
      await replaceQuestions(tx, params.assignment, body.questions);
    });
    return { questions: await selectQuestions(db, params.assignment) };
  });
  return router;
}
