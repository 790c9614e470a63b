import { z } from 'zod';
import sentences from './practice-sentences.json' with { type: 'json' };

/** What the practice microphone says, word by word, in seconds from the start of each recording. */
export const PRACTICE_SENTENCES = z
  .array(
    z.object({ text: z.string(), words: z.array(z.object({ word: z.string(), start: z.number(), end: z.number() })) }),
  )
  .parse(sentences);
