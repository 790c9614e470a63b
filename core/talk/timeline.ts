import type { Anchor } from '../anchor/anchor.ts';
import type { DrawnStroke, InkPoint, PlacedStroke } from '../ink/index.ts';
import { isOf, strokeSeconds, type TalkView, type Track } from './track.ts';

/** A stroke of a track, and from when to when it can be seen; seconds of the sound. */
export interface TimedStroke {
  placed: PlacedStroke;
  at: number;
  /** When it was drawn to its end. */
  drawn: number;
  /** When it was rubbed out. */
  until: number;
}

/** A passage that was chosen, and when; its kind where one was chosen meanwhile. */
export interface TimedPassage {
  at: number;
  anchor: Anchor;
  kind: string | undefined;
}

/** A stretch in which the student's recording played along; all in seconds, `from` of its own. */
export interface Performance {
  leaf: number;
  at: number;
  until: number;
  from: number;
}

/** A track made ready to be shown at any moment. */
export interface Timeline {
  views: readonly ({ at: number } & TalkView)[];
  passages: readonly TimedPassage[];
  strokes: readonly TimedStroke[];
  performances: readonly Performance[];
}

export function timelineOf(track: Track): Timeline {
  const erased = new Map(track.filter(isOf('erase')).map(({ stroke, at }) => [stroke, at]));
  return {
    views: track.filter(isOf('view')),
    passages: track.filter(isOf('select')).map(({ at, anchor }, index, all) => ({
      ...{ at, anchor },
      kind: kindBefore(track, all[index + 1]?.at ?? Infinity),
    })),
    strokes: track.filter(isOf('stroke')).map(({ at, placed }, index) => ({
      ...{ placed, at },
      drawn: at + strokeSeconds(placed),
      until: erased.get(index) ?? Infinity,
    })),
    performances: performancesOf(track),
  };
}

/** The kind that was chosen last before a moment; undefined where none was. */
export const kindBefore = (track: Track, moment: number): string | undefined =>
  track.filter(isOf('kind')).findLast(({ at }) => at < moment)?.kind;

function performancesOf(track: Track): Performance[] {
  const made: Performance[] = [];
  for (const event of track) {
    const open = made.at(-1);
    if (open && open.until === Infinity && (event.type === 'halt' || event.type === 'perform')) open.until = event.at;
    if (event.type === 'perform') made.push({ leaf: event.leaf, at: event.at, until: Infinity, from: event.from });
  }
  return made;
}

/** The last of some things in the order of time that began at a moment or before. */
export function lastBefore<Timed extends { at: number }>(timed: readonly Timed[], moment: number): Timed | undefined {
  let [low, high] = [0, timed.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (timed[middle]!.at <= moment) low = middle + 1;
    else high = middle;
  }
  return timed[low - 1];
}

/** Whether a stroke can be seen at a moment, wholly or in part. */
export const isSeen = ({ at, until }: TimedStroke, moment: number): boolean => at <= moment && moment < until;

/**
 * As much of a stroke as was drawn in so many seconds since it began; its end lies on the straight way between two points.
 * @returns undefined before it began
 */
export function grown(stroke: DrawnStroke, seconds: number): DrawnStroke | undefined {
  const { points } = stroke;
  const next = points.findIndex(({ at }) => at > seconds);
  if (next < 0) return stroke;
  if (next === 0) return undefined;
  return { ...stroke, points: [...points.slice(0, next), between(points[next - 1]!, points[next]!, seconds)] };
}

function between(from: InkPoint, to: InkPoint, at: number): InkPoint {
  const share = (at - from.at) / (to.at - from.at);
  const mixed = (key: 'x' | 'y' | 'pressure'): number => from[key] + share * (to[key] - from[key]);
  return { x: mixed('x'), y: mixed('y'), pressure: mixed('pressure'), at };
}
