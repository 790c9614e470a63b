import { splitTake, type Cut } from '#core/talk';
import { readFile } from 'node:fs/promises';
import { z } from 'zod';
import { parseJson } from './reattach.ts';

const Seconds = z.number().min(0);
const Moment = z.object({ at: Seconds });
const Stretch = z
  .object({ start: Seconds, end: Seconds })
  .refine(({ start, end }) => end >= start, 'ends before it begins');

/** docs/split.md says what each of these means. */
export const TakeFile = z.object({
  duration: Seconds,
  pauses: z.array(Stretch),
  selections: z.array(Moment),
  words: z.array(Stretch.and(z.object({ word: z.string() }))).optional(),
  keys: z.array(Moment).optional(),
});

const THOUSANDTHS = 1000;
const rounded = (value: number): number => Math.round(value * THOUSANDTHS) / THOUSANDTHS;

/** Where a take that went through several passages is to be split. */
export async function split(file: string): Promise<{ cuts: Cut[] }> {
  const take = TakeFile.parse(parseJson(await readFile(file, 'utf8'), file));
  return { cuts: splitTake(take).map(({ at, doubt }) => ({ at: rounded(at), doubt: rounded(doubt) })) };
}
