import type { Anchor as CoreAnchor } from '#core/anchor';
import { z } from 'zod';

const leaf = z.int().min(0);
const Fraction = z.number().min(0).max(1);
const Seconds = z.number().min(0);
const Index = z.int().min(0);

export const Quote = z.object({ exact: z.string().min(1), prefix: z.string(), suffix: z.string() });
export type Quote = z.infer<typeof Quote>;

export const Anchor = z.discriminatedUnion('type', [
  z.object({
    type: z.literal('passage'),
    start: z.int().min(0),
    end: z.int().min(1),
    quote: Quote,
  }),
  z.object({ type: z.literal('region'), leaf, x: Fraction, y: Fraction, width: Fraction, height: Fraction }),
  z.object({ type: z.literal('span'), leaf, start: Seconds, end: Seconds }),
  z.object({ type: z.literal('cells'), leaf, top: Index, left: Index, bottom: Index, right: Index }),
  z.object({ type: z.literal('answer'), question: z.uuid() }),
  z.object({ type: z.literal('whole') }),
]) satisfies z.ZodType<CoreAnchor>;
