import { KEY_COLORS, KEY_GLYPHS, KEY_LINES, keyProblem, type KeyEntry as CoreKeyEntry } from '#core/margin';
import { z } from 'zod';
import { endpoint } from './endpoint.ts';

/** What a remark is for: the identifier of an entry of its course's margin key. */
export const Kind = z.string().regex(/^[a-z0-9-]{1,40}$/, 'is no kind of remark');
export type Kind = z.infer<typeof Kind>;

export const KeyEntry = z.object({
  kind: Kind,
  name: z.string().trim().min(1).max(24),
  color: z.enum(KEY_COLORS),
  glyph: z.enum(KEY_GLYPHS),
  line: z.enum(KEY_LINES),
}) satisfies z.ZodType<CoreKeyEntry>;
export type KeyEntry = z.infer<typeof KeyEntry>;

export const MarginKey = z.array(KeyEntry).superRefine((key, context) => {
  const message = keyProblem(key);
  if (message !== undefined) context.addIssue({ code: 'custom', message });
});
export type MarginKey = z.infer<typeof MarginKey>;

export const setMarginKey = endpoint({
  method: 'PUT',
  path: '/courses/:course/margin-key',
  body: z.object({ key: MarginKey }),
  answer: z.object({ key: MarginKey }),
});
