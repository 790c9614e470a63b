import { Id, LanguageTag } from '#contract/basics';
import { setTranslation } from '#contract/recordings';
import { SpokenText, type Translation } from '#contract/transcripts';
import { z } from 'zod';
import { call } from '../../session/api.ts';
import type { Undoable } from './change.ts';
import { changedRecording, recordingIn, withRecording } from './on-feedback.ts';

/** The words of a recording in another language, written by hand. */
export const Translate = z.object({
  type: z.literal('translate'),
  recording: Id,
  language: LanguageTag,
  text: SpokenText,
});
export type Translate = z.infer<typeof Translate>;

export const translating: Undoable<Translate> = {
  schema: Translate,
  apply: (feedback, { recording, language, text }) =>
    changedRecording(feedback, recording, ({ translations }) => ({
      translations: [...translations.filter((one) => one.language !== language), ...written(language, text)].sort(
        (a, b) => a.language.localeCompare(b.language),
      ),
    })),
  inverse(feedback, change) {
    const { translations = [] } = recordingIn(feedback, change.recording) ?? {};
    return { ...change, text: translations.find(({ language }) => language === change.language)?.text ?? '' };
  },
  async send(_, { recording, language, text }) {
    const changed = await call(setTranslation, { params: { recording }, body: { language, text } });
    return (feedback) => withRecording(feedback, changed);
  },
  touches: ({ recording }) => [recording],
};

/** An empty text takes the words away. */
const written = (language: string, text: string): Translation[] =>
  text === '' ? [] : [{ language, text, source: 'person', engine: '' }];
