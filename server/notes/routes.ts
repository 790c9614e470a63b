import { Router } from 'express';
import { makeNote as makeEndpoint, putNoteAside, readNotes } from '../../contract/notes.ts';
import type { Context } from '../context.ts';
import { serve } from '../http/serve.ts';
import { makeNote } from './make.ts';
import { selectNote, selectNotes, updateNoteAside } from './queries.ts';

/** What is said about no work: on a course's page, in an assignment, to everyone in it. */
export function noteRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, readNotes, 'course.read', ({ params, person, standing }) =>
    selectNotes(db, params.course, { teacher: standing.teacher, person: person.id }),
  );

  serve(router, context, makeEndpoint, 'note.make', ({ params, body, file, person }) =>
    makeNote(context, { id: params.note, course: params.course, author: person.id, note: body, file }),
  );

  serve(router, context, putNoteAside, 'note.putAside', async ({ params, body, person }) => {
    await updateNoteAside(db, params.note, body.aside);
    return (await selectNote(db, params.note, { teacher: true, person: person.id }))!;
  });
  return router;
}
