import { outcomeOf } from '#core/grading';
import { Router } from 'express';
import {
  planReturn,
  readAsStudent,
  readReturning,
  returnWorks,
  setReady,
  takeBackWorks,
} from '../../contract/returning.ts';
import { allows, authorise } from '../access/authorise.ts';
import { asStudent } from '../access/visible.ts';
import { selectSummary } from '../assignments/queries.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { selectFeedback } from '../feedback/queries.ts';
import { releaseHeld, returnWork, takeBack } from '../feedback/return.ts';
import { serve } from '../http/serve.ts';
import { selectOf, selectReturning, updateReady, updateReturnAt } from './queries.ts';

/** Drafts on their way to their students. */
export function returningRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  /** Each work in a transaction of its own: short, and what was done stays done where the server ends in the middle. */
  async function each(
    assignment: string,
    works: readonly string[],
    person: string,
    deed: (tx: Queries, submission: string) => Promise<boolean>,
  ): Promise<string[]> {
    const done: string[] = [];
    for (const submission of await allowed(assignment, works, person))
      if (await db.transaction((tx) => deed(tx, submission))) done.push(submission);
    return done;
  }

  /**
   * Of many works those that one alone could be done to: the others stay as they are.
   * @throws ProblemError where none is
   */
  async function allowed(assignment: string, works: readonly string[], person: string): Promise<string[]> {
    const found = await selectOf(db, assignment, works);
    const kept: string[] = [];
    for (const submission of found)
      if (await allows(db, person, 'feedback.return', { submission })) kept.push(submission);
    if (kept.length === 0 && found[0]) await authorise(db, person, 'feedback.return', { submission: found[0] });
    return kept;
  }

  serve(router, context, readReturning, 'assignment.return', async ({ params, person }) => {
    const { title, courseId } = await selectSummary(db, params.assignment);
    return { title, course: courseId, rows: await selectReturning(db, params.assignment, person.id) };
  });

  serve(router, context, returnWorks, 'assignment.return', async ({ params, body, person }) => ({
    returned: await each(
      params.assignment,
      body.works,
      person.id,
      async (tx, work) =>
        (await returnWork(tx, work, person.id, body.held)) ||
        (body.held === null && (await releaseHeld(tx, work, person.id))),
    ),
  }));

  serve(router, context, planReturn, 'assignment.return', async ({ params, body, person }) => ({
    planned: await updateReturnAt(db, await allowed(params.assignment, body.works, person.id), body.at),
  }));

  serve(router, context, takeBackWorks, 'assignment.return', async ({ params, body, person }) => ({
    takenBack: await each(params.assignment, body.works, person.id, (tx, work) => takeBack(tx, work, person.id, true)),
  }));

  serve(router, context, setReady, 'feedback.return', async ({ params, body }) => {
    if (!(await updateReady(db, params.submission, body.ready))) throw problems.returned();
    return {};
  });

  serve(router, context, readAsStudent, 'feedback.preview', async ({ params }) => {
    const feedback = await selectFeedback(db, params.submission, asStudent);
    if (!feedback) throw problems.notFound();
    if (feedback.returnedAt !== null) return feedback;
    return { ...feedback, returnedAt: new Date().toISOString(), grade: outcomeOf(feedback).grade };
  });
  return router;
}
