import { makeNote, NewNote, type Note } from '#contract/notes';
import { Id } from '#contract/basics';
import { Recording } from '#contract/recordings';
import { z } from 'zod';
import { KeptRecording, newSound } from '../feedback/changes/recorded.ts';
import { call } from '../session/api.ts';

/** A note on its way to the server. */
export const SayNote = z.object({
  note: Id,
  content: NewNote.omit({ recording: true, banked: true }),
  recording: KeptRecording.nullable(),
  banked: Id.nullable(),
  /** How the copy of a banked remark will look. */
  shown: Recording.nullable(),
  author: z.object({ id: Id, name: z.string() }),
  madeAt: z.string(),
});
export type SayNote = z.infer<typeof SayNote>;

export const sendNote = (course: string, { note, content, recording, banked }: SayNote): Promise<Note> =>
  call(makeNote, {
    params: { course, note },
    body: { ...content, banked, recording: recording && { ...recording, sound: newSound(recording.sound) } },
    files: recording ? [recording.sound.blob] : [],
  });
