import { Router } from 'express';
import { randomUUID } from 'node:crypto';
import { handIn, readAssignment, readOwnWork, readWaiting } from '../../contract/assignments.ts';
import type { Context } from '../context.ts';
import { DocumentError } from '../documents/document.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { insertSubmission } from '../submissions/insert.ts';
import { selectOverview, selectOwnWork, selectTaught, selectToMark, selectUnanswered } from './queries.ts';

export function assignmentRoutes(context: Context): Router {
  const router = Router();
  const { db, readDocument } = context;

  serve(router, context, readWaiting, 'own', async ({ person }) => ({
    toMark: await selectToMark(db, person.id),
    unanswered: await selectUnanswered(db, person.id),
    assignments: await selectTaught(db, person.id),
  }));

  serve(router, context, readOwnWork, 'own', ({ person }) => selectOwnWork(db, person.id));

  serve(router, context, readAssignment, 'assignment.oversee', async ({ params }) => {
    const overview = await selectOverview(db, params.assignment);
    if (!overview) throw problems.notFound();
    return overview;
  });

  serve(router, context, handIn, 'assignment.handIn', async ({ params, person, file }) => {
    if (file!.bytes.length === 0) throw problems.fileEmpty();
    const read = await readDocument(file!.bytes, file!.name).catch((error: unknown) => {
      throw error instanceof DocumentError ? problems.unreadableDocument(error.message) : error;
    });
    const submission = randomUUID();
    const { name: fileName, bytes } = file!;
    await db.transaction((tx) =>
      insertSubmission(tx, {
        id: submission,
        assignment: params.assignment,
        student: person.id,
        fileName,
        bytes,
        read,
      }),
    );
    return { submission };
  });
  return router;
}
