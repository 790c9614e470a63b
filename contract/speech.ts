import { z } from 'zod';
import { Id, LanguageTag } from './basics.ts';
import { endpoint } from './endpoint.ts';

/** Where the voice or the words of a teacher go only after they have agreed to it. */
export const SpeechPlace = z.enum(['speech server', 'browser cloud', 'translation server']);
export type SpeechPlace = z.infer<typeof SpeechPlace>;

const Whereabouts = z.enum(['this server', 'another server']);

/** What writes down recordings and translates words here, and what a teacher has settled about it. */
export const SpeechSettings = z.object({
  engines: z.array(
    z.object({
      name: z.string(),
      /** BCP 47 primary tags; null where the engine itself decides. */
      languages: z.array(z.string()).nullable(),
      wordTimes: z.boolean(),
      soundGoesTo: Whereabouts,
    }),
  ),
  translators: z.array(z.object({ name: z.string(), textGoesTo: Whereabouts })),
  /** Languages in which words are aligned with their sound; in others their times are approximate. */
  aligned: z.array(z.string()),
  /** What this server could have, and how whoever runs it gets it. */
  missing: z.array(z.object({ name: z.string(), how: z.string() })),
  agreements: z.array(SpeechPlace),
  /** What the teacher speaks; null where they follow the course. */
  language: LanguageTag.nullable(),
  /** Courses that they teach, with what is spoken there. */
  courses: z.array(z.object({ id: Id, title: z.string(), language: LanguageTag })),
});
export type SpeechSettings = z.infer<typeof SpeechSettings>;

export const readSpeechSettings = endpoint({ method: 'GET', path: '/speech', answer: SpeechSettings });
export const agreeToPlace = endpoint({
  method: 'PUT',
  path: '/speech/agreement',
  body: z.object({ place: SpeechPlace, agreed: z.boolean() }),
  answer: SpeechSettings,
});
export const setOwnLanguage = endpoint({
  method: 'PUT',
  path: '/speech/language',
  body: z.object({ language: LanguageTag.nullable() }),
  answer: SpeechSettings,
});
export const setCourseLanguage = endpoint({
  method: 'PUT',
  path: '/courses/:course/spoken-language',
  body: z.object({ language: LanguageTag }),
  answer: SpeechSettings,
});
