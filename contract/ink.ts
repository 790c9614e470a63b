import { INK_TOOLS, MOST_STROKES, unpackPoints, type Stroke as CoreStroke } from '#core/ink';
import { z } from 'zod';
import { Kind } from './margin-key.ts';

/** Colours that say nothing about a kind. */
export const PLAIN_COLOURS = ['ink', 'grey', 'pale'] as const;
/** Each of them on light paper. */
export const PLAIN_HEX: Partial<Record<string, string>> = { ink: '#22201C', grey: '#6F6A60', pale: '#A9A294' };

/** Characters; about half a minute of writing without lifting the pen. */
const LONGEST_STROKE = 40_000;
/** Characters of all strokes of one remark: what a request carries, with room for what else it says. */
const LARGEST_INK = 400_000;

const Offset = z.int().min(-1_000_000).max(10_000_000);
const Units = z.int().min(-100_000).max(100_000);

export const Hold = z.discriminatedUnion('type', [
  z.object({ type: z.literal('along') }),
  z.object({
    ...{ type: z.literal('around'), start: Offset, end: Offset, lines: z.boolean() },
    pad: z.tuple([Units, Units, Units, Units]),
  }),
  z.object({ type: z.literal('free'), start: Offset }),
  z.object({ type: z.literal('beside'), start: Offset }),
]);

function isPacked(points: string): boolean {
  try {
    return unpackPoints(points).length > 0;
  } catch {
    return false;
  }
}

export const Stroke = z.object({
  tool: z.enum(INK_TOOLS),
  colour: z.enum(PLAIN_COLOURS).or(Kind),
  width: z.int().min(1).max(20_000),
  points: z.string().min(4).max(LONGEST_STROKE).refine(isPacked, 'is no packed points'),
  text: z.string().trim().min(1).max(200).optional(),
  hold: Hold.optional(),
}) satisfies z.ZodType<CoreStroke>;
export type Stroke = z.infer<typeof Stroke>;

/** What was drawn about one place. */
export const Ink = z
  .array(Stroke)
  .min(1)
  .max(MOST_STROKES)
  .refine(
    (strokes) => strokes.reduce((sum, { points }) => sum + points.length, 0) <= LARGEST_INK,
    'is too much ink for one remark',
  );
export type Ink = z.infer<typeof Ink>;
