import type { PlacedStroke as CorePlacedStroke } from '#core/ink';
import type { TalkEvent as CoreTalkEvent } from '#core/talk';
import { z } from 'zod';
import { Anchor } from './anchor.ts';
import { Stroke } from './ink.ts';
import { Kind } from './margin-key.ts';

const at = z.number().min(0).max(100_000);
const leaf = z.int().min(0);
const Offset = z.int().min(0);

const PlacedStroke = z.union([
  z.object({ leaf: z.int().min(-1), held: z.object({ stroke: Stroke, start: Offset, end: Offset }) }),
  z.object({ leaf, stroke: Stroke }),
]) satisfies z.ZodType<CorePlacedStroke>;

export const TalkEvent = z.discriminatedUnion('type', [
  z.object({ type: z.literal('view'), at, leaf, share: z.number().min(0).max(1), offset: Offset.optional() }),
  z.object({ type: z.literal('select'), at, anchor: Anchor }),
  z.object({ type: z.literal('kind'), at, kind: Kind }),
  z.object({ type: z.literal('stroke'), at, placed: PlacedStroke }),
  z.object({ type: z.literal('erase'), at, stroke: z.int().min(0) }),
  z.object({ type: z.literal('perform'), at, leaf, from: z.number().min(0) }),
  z.object({ type: z.literal('halt'), at }),
]) satisfies z.ZodType<CoreTalkEvent>;
export type TalkEvent = z.infer<typeof TalkEvent>;

/** What one track holds: what a request carries, with room for what else it says. */
export const MOST_EVENTS = 5000;
/** Characters of the points of all strokes: an hour of talking while somebody writes for a quarter of it. */
export const LARGEST_TRACK_INK = 400_000;

const inkOf = (event: TalkEvent): number =>
  event.type === 'stroke' ? ('held' in event.placed ? event.placed.held.stroke : event.placed.stroke).points.length : 0;

/** What was shown, chosen and drawn while a recording was made. */
export const Track = z
  .array(TalkEvent)
  .max(MOST_EVENTS)
  .refine((events) => events.every(({ at }, index) => index === 0 || at >= events[index - 1]!.at), 'is out of order')
  .refine(
    (events) => events.reduce((sum, event) => sum + inkOf(event), 0) <= LARGEST_TRACK_INK,
    'is too much ink for one recording',
  );
export type Track = z.infer<typeof Track>;
