import { carried } from '#core/transcript';
import { Id, LanguageTag } from '#contract/basics';
import { mendTranscript, type Recording } from '#contract/recordings';
import { SpokenText, type Transcript } from '#contract/transcripts';
import { z } from 'zod';
import { call } from '../../session/api.ts';
import type { Undoable } from './change.ts';
import { changedRecording, recordingIn, withRecording } from './on-feedback.ts';

/** Words in the place of a transcript. */
export const Mend = z.object({
  type: z.literal('mend'),
  recording: Id,
  language: LanguageTag,
  text: SpokenText,
  read: z.boolean(),
});
export type Mend = z.infer<typeof Mend>;

export const mending: Undoable<Mend> = {
  schema: Mend,
  apply: (feedback, change) =>
    changedRecording(feedback, change.recording, (recording) => ({ transcript: mended(recording, change) })),
  inverse(feedback, change) {
    const {
      language = change.language,
      text = '',
      read = true,
    } = recordingIn(feedback, change.recording)?.transcript ?? {};
    return { ...change, language, text, read };
  },
  async send(_, { recording, language, text, read }) {
    const changed = await call(mendTranscript, { params: { recording }, body: { language, text, read } });
    return (feedback) => withRecording(feedback, changed);
  },
  touches: ({ recording }) => [recording],
};

/** As the server will make it; until all words are aligned, those that stayed keep their times. */
function mended({ transcript: before, sound }: Recording, { language, text, read }: Mend): Transcript {
  if (before?.text === text && before.language === language) return { ...before, read };
  const words = carried(before?.words ?? [], text, sound.duration);
  return { language, text, words, source: 'person', engine: '', approximate: true, read };
}
