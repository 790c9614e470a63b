import type { Folio as CoreFolio, Run as CoreRun, TextBlock as CoreTextBlock } from '#core/folio';
import { z } from 'zod';

const Mark = z.enum(['bold', 'italic', 'underline', 'strike', 'superscript', 'subscript']);
const Link = z.string().regex(/^(https?:|mailto:)/i);
const Run = z.object({
  text: z.string(),
  marks: z.array(Mark),
  link: Link.optional(),
  note: z.string().optional(),
}) satisfies z.ZodType<CoreRun>;
const runs = z.array(Run);

const TextBlock = z.discriminatedUnion('type', [
  z.object({ type: z.literal('heading'), level: z.int().min(1).max(6), runs }),
  z.object({ type: z.literal('paragraph'), runs }),
  z.object({ type: z.literal('item'), depth: z.int().min(0), marker: z.string(), runs }),
]) satisfies z.ZodType<CoreTextBlock>;

const Block = z.union([
  TextBlock,
  z.object({
    type: z.literal('table'),
    rows: z.array(z.array(z.object({ header: z.boolean(), blocks: z.array(TextBlock) }))),
  }),
  z.object({ type: z.literal('picture'), picture: z.int().min(0), alt: z.string() }),
]);

export const Folio = z.object({
  format: z.literal('docx'),
  title: z.string(),
  text: z.string(),
  leaves: z.array(z.object({ label: z.string(), kind: z.literal('text'), start: z.int().min(0), end: z.int().min(0) })),
  blocks: z.array(Block),
}) satisfies z.ZodType<CoreFolio>;
