import { z } from 'zod';
import { Id, Instant } from './basics.ts';
import { endpoint } from './endpoint.ts';
import { NewRecording, Recording } from './recordings.ts';
import { PlainContent } from './said.ts';

/** Where a note stands. */
export const NotePlace = z.discriminatedUnion('place', [
  z.object({ place: z.literal('course') }),
  z.object({ place: z.literal('instructions'), assignment: Id }),
  z.object({ place: z.literal('question'), assignment: Id, question: Id }),
  /** Said to everyone in an assignment. */
  z.object({ place: z.literal('class'), assignment: Id }),
]);
export type NotePlace = z.infer<typeof NotePlace>;

/** Something that is said about no work. */
export const Note = PlainContent.extend({
  id: Id,
  at: NotePlace,
  author: z.object({ id: Id, name: z.string() }),
  /** For a student, `heard` is their own listening. */
  recording: Recording.nullable(),
  madeAt: Instant,
  /** Who has begun to listen, and heard it to the end; for teachers. */
  listeners: z.array(z.object({ name: z.string(), finishedAt: Instant.nullable() })),
});
export type Note = z.infer<typeof Note>;

export const NewNote = PlainContent.extend({
  at: NotePlace,
  /** A fresh one; its file comes along. */
  recording: NewRecording.nullable().default(null),
  /** A banked remark that is said here as a copy. */
  banked: Id.nullable().default(null),
});
export type NewNote = z.infer<typeof NewNote>;

export const readNotes = endpoint({ method: 'GET', path: '/courses/:course/notes', answer: z.array(Note) });
/** Sending it twice makes it once: the browser chooses its id. */
export const makeNote = endpoint({
  method: 'PUT',
  path: '/courses/:course/notes/:note',
  body: NewNote,
  upload: { files: 'perhaps', largest: 'recording' },
  answer: Note,
});
export const putNoteAside = endpoint({
  method: 'PUT',
  path: '/notes/:note/aside',
  body: z.object({ aside: z.boolean() }),
  answer: Note,
});
