import { Router } from 'express';
import { keepGreeting, readGreetings, removeGreeting, type Greeting } from '../../contract/bank.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { selectOwnLanguage } from '../languages/queries.ts';
import { incoming, keepRecording, wake } from '../recordings/make.ts';
import { deleteGreeting, selectGreetings, upsertGreeting } from './queries.ts';

/** A few words to each student by name, spoken once and put before banked remarks. */
export function greetingRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;
  const one = async (course: string, teacher: string, student: string): Promise<Greeting> => {
    const found = (await selectGreetings(db, course, teacher)).find((greeting) => greeting.student === student);
    if (!found) throw problems.notFound();
    return found;
  };

  serve(router, context, readGreetings, 'greeting.keep', ({ params, person }) =>
    selectGreetings(db, params.course, person.id),
  );

  serve(router, context, keepGreeting, 'greeting.keep', async ({ params, body, file, person }) => {
    await one(params.course, person.id, params.student);
    const heard = await incoming(body.recording, file);
    const language = (await selectOwnLanguage(db, person.id)) ?? 'en';
    await db.transaction(async (tx) => {
      const recording = await keepRecording(tx, heard, { owner: person.id, language });
      await upsertGreeting(tx, person.id, params.student, recording);
    });
    wake(context);
    return one(params.course, person.id, params.student);
  });

  serve(router, context, removeGreeting, 'greeting.keep', async ({ params, person }) => {
    await deleteGreeting(db, person.id, params.student);
    return {};
  });
  return router;
}
