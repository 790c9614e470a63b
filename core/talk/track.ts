import type { Anchor } from '../anchor/anchor.ts';
import { heardAt, spokenAt, type Span } from '../audio/edit.ts';
import { strokeOf, unpackPoints, type PlacedStroke } from '../ink/index.ts';

/** What of the work was in sight: a leaf and the share of its height, from 0 to 1, that was a little above the middle. */
export interface TalkView {
  leaf: number;
  share: number;
  /** Of flowing text: the UTF-16 offset that stood there, since it stands elsewhere on another screen. */
  offset?: number | undefined;
}

/** Something that happened while somebody talked through a work; `at` in seconds of the sound. */
export type TalkEvent = { at: number } & (
  | ({ type: 'view' } & TalkView)
  | { type: 'select'; anchor: Anchor }
  /** From here on the remark in hand is of this kind. */
  | { type: 'kind'; kind: string }
  | { type: 'stroke'; placed: PlacedStroke }
  /** A stroke was rubbed out: its index among the strokes of the track. */
  | { type: 'erase'; stroke: number }
  /** The student's recording on a leaf began to play, from so many seconds of its own. */
  | { type: 'perform'; leaf: number; from: number }
  /** It was halted. */
  | { type: 'halt' }
);

/** What happened, in the order of time. */
export type Track = readonly TalkEvent[];

export const isOf =
  <Type extends TalkEvent['type']>(type: Type) =>
  (event: TalkEvent): event is TalkEvent & { type: Type } =>
    event.type === type;

/** How long a stroke was drawn, in seconds. */
export const strokeSeconds = (placed: PlacedStroke): number => unpackPoints(strokeOf(placed).points).at(-1)?.at ?? 0;

/** In the order of time; what happened at the same moment keeps its order, and each rubbing out its stroke. */
export function inTime(events: readonly TalkEvent[]): TalkEvent[] {
  const sorted = events.toSorted((a, b) => a.at - b.at);
  const strokes = events.filter(isOf('stroke'));
  const places = new Map(sorted.filter(isOf('stroke')).map((stroke, index) => [stroke, index]));
  return sorted.flatMap((event): TalkEvent[] => {
    if (event.type !== 'erase') return [event];
    const place = places.get(strokes[event.stroke]!);
    return place === undefined ? [] : [{ ...event, stroke: place }];
  });
}

/**
 * The same track beside another rendition of its sound. What happened in a stretch that is cut out happens where it was cut, so
 * that nothing drawn is lost.
 * @param before what of the original was heard, null for all of it; both in seconds of the original
 */
export const retimedTrack = (track: Track, before: readonly Span[] | null, now: readonly Span[]): TalkEvent[] =>
  track.map((event) => {
    const at = heardFrom(now, before ? spokenAt(before, event.at) : event.at);
    return { ...event, at: Math.round(at * 1000) / 1000 };
  });

/** When a moment of the original is heard, or the next that is. */
const heardFrom = (kept: readonly Span[], moment: number): number =>
  heardAt(kept, moment) ?? kept.reduce((sum, { start, end }) => (end <= moment ? sum + end - start : sum), 0);
