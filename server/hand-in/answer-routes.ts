import { answersFile, isAnswer } from '#core/folio';
import { Router } from 'express';
import { randomUUID } from 'node:crypto';
import { handInAnswers, keepAnswers, readAnswers, type Answers, type Question } from '../../contract/assignments.ts';
import { selectQuestions, selectSummary } from '../assignments/queries.ts';
import type { Context } from '../context.ts';
import { reattachSoon } from '../earlier/reattach.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { insertWork } from './insert-work.ts';
import { refuseByRules } from './queries.ts';
import { selectDraft, upsertDraft } from './drafts.ts';

/** Work that is typed in the app: the answers to the questions of an assignment. */
export function answerRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, readAnswers, 'assignment.handIn', async ({ params, person }) => ({
    answers: await selectDraft(db, params.assignment, person.id),
  }));

  serve(router, context, keepAnswers, 'assignment.handIn', async ({ params, body, person }) => {
    const questions = await askedIn(params.assignment);
    const answers = onlyTo(questions, body.answers);
    await upsertDraft(db, params.assignment, person.id, answers);
    return { answers };
  });

  serve(router, context, handInAnswers, 'assignment.handIn', async ({ params, body, person }) => {
    const { assignment } = params;
    const questions = await askedIn(assignment);
    const answers = onlyTo(questions, body.answers);
    if (Object.values(answers).every((answer) => answer.trim() === '')) throw problems.noAnswers();
    questions.forEach((question, index) => {
      if (!isAnswer(question, answers[question.id] ?? '')) throw problems.notAnAnswer(index + 1);
    });
    const file = answersFile((await selectSummary(db, assignment)).title, questions, answers);
    const submission = await db.transaction(async (tx) => {
      await refuseByRules(tx, assignment, person.id);
      await upsertDraft(tx, assignment, person.id, answers);
      const id = randomUUID();
      const files = [{ file, medium: undefined, pictures: [] }];
      return insertWork(tx, { id, assignment, student: person.id, files }, person.id);
    });
    reattachSoon(context, submission, person.id);
    return { submission };
  });
  return router;

  async function askedIn(assignment: string): Promise<Question[]> {
    const questions = await selectQuestions(db, assignment);
    if (questions.length === 0) throw problems.hasNoQuestions();
    return questions;
  }
}

const onlyTo = (questions: readonly Question[], answers: Answers): Answers =>
  Object.fromEntries(questions.flatMap(({ id }) => (answers[id] === undefined ? [] : [[id, answers[id]]])));
