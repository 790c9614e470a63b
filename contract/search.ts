import { z } from 'zod';
import { Id } from './basics.ts';
import { endpoint } from './endpoint.ts';
import { Remark } from './remarks.ts';

export const MOST_HITS = 30;

/** Looks in transcripts, their translations, and what was written in remarks, among all that the person may read. */
export const searchRemarks = endpoint({
  method: 'POST',
  path: '/search',
  body: z.object({
    words: z.string().max(200),
    /** Only what the person said themselves. */
    own: z.boolean().default(false),
  }),
  answer: z.object({
    /** Those with the words in this order first, then the newest. */
    hits: z.array(z.object({ submission: Id, student: z.string(), assignment: z.string(), remark: Remark })),
    /** Whether there are more than are answered. */
    more: z.boolean(),
  }),
});
