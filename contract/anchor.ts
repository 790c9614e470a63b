import type { Anchor as CoreAnchor } from '#core/anchor';
import { z } from 'zod';

export const Anchor = z.discriminatedUnion('type', [
  z.object({
    type: z.literal('passage'),
    start: z.int().min(0),
    end: z.int().min(1),
    quote: z.object({ exact: z.string().min(1), prefix: z.string(), suffix: z.string() }),
  }),
  z.object({ type: z.literal('whole') }),
]) satisfies z.ZodType<CoreAnchor>;
