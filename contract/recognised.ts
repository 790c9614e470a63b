import { z } from 'zod';
import { endpoint } from './endpoint.ts';

const Share = z.number().min(0).max(1);

/** A word that a program read in a picture; its place as shares of the width and height of its leaf. */
export const RecognisedWord = z.object({ text: z.string(), x: Share, y: Share, width: Share, height: Share });
export type RecognisedWord = z.infer<typeof RecognisedWord>;

/** The words of one leaf, line by line. */
export const RecognisedLeaf = z.object({ leaf: z.int(), lines: z.array(z.array(RecognisedWord)) });
export type RecognisedLeaf = z.infer<typeof RecognisedLeaf>;

export const Recognised = z.object({
  /** `off` where no program for it is installed. */
  state: z.enum(['off', 'waiting', 'done', 'failed']),
  leaves: z.array(RecognisedLeaf),
});
export type Recognised = z.infer<typeof Recognised>;

/** Words in scanned pages and photographed pages, which have no text of their own. */
export const readRecognised = endpoint({
  method: 'GET',
  path: '/submissions/:submission/recognised',
  answer: Recognised,
});
