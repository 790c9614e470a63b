import type { Transcript as CoreTranscript } from '#core/transcript';
import { z } from 'zod';
import { LanguageTag } from './basics.ts';

/** As much as is said in the longest recording: three hours at three words a second. */
export const MOST_SAID = 250_000;
/** Three hours, the longest of a recording, at more words a minute than anybody speaks. */
const MOST_WORDS = 40_000;
const wordsIn = (text: string): number => (text.match(/\s\S/gu)?.length ?? 0) + 1;
export const SpokenText = z
  .string()
  .max(MOST_SAID)
  .refine((text) => wordsIn(text) <= MOST_WORDS, `These are more than ${MOST_WORDS} words`);

const TranscriptSource = z.enum(['machine', 'person', 'bank']);

/** Times in seconds. */
export const Word = z.object({
  word: z.string(),
  start: z.number().min(0),
  end: z.number().min(0),
  confidence: z.number().min(0).max(1).optional(),
});

export type Transcript = z.infer<typeof Transcript>;
export const Transcript = z.object({
  language: LanguageTag,
  text: SpokenText,
  words: z.array(Word),
  source: TranscriptSource,
  /** What made it, in words for people; empty where a person typed it. */
  engine: z.string().default(''),
  approximate: z.boolean().default(false),
  read: z.boolean().default(true),
}) satisfies z.ZodType<CoreTranscript>;

/** The same words in another language. */
export const Translation = z.object({
  language: LanguageTag,
  text: SpokenText,
  source: TranscriptSource,
  engine: z.string(),
});
export type Translation = z.infer<typeof Translation>;

/** How far listening to a recording is, and why it failed. */
export const SpeechJob = z.object({
  task: z.enum(['transcribe', 'align']),
  state: z.enum(['queued', 'running', 'done', 'failed']),
  reason: z.string().nullable(),
  /** How much of the recording has been listened to; null where nobody tells. */
  progress: z.number().min(0).max(1).nullable(),
});
export type SpeechJob = z.infer<typeof SpeechJob>;
