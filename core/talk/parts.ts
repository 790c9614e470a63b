import type { Anchor } from '../anchor/anchor.ts';
import type { Span } from '../audio/edit.ts';
import type { Folio } from '../folio/index.ts';
import { drawingOf, isNear, type PlacedStroke } from '../ink/index.ts';
import { splitTake, type TalkTake } from './split.ts';
import { isOf, type Track } from './track.ts';
import { kindBefore, timelineOf, type TimedStroke } from './timeline.ts';

/** One remark of a take that went through several passages; times in seconds of the take. */
export interface Part extends Span {
  anchor: Anchor;
  kind: string | undefined;
  strokes: readonly PlacedStroke[];
  /** How much its beginning is to be doubted, from 0 to 1. */
  doubt: number;
}

/** Somebody who chooses again so soon, in seconds, corrects what they have chosen. */
const CORRECTED_WITHIN = 0.8;

interface Passage {
  at: number;
  anchor: Anchor;
  strokes: TimedStroke[];
  /** Whether it was chosen; otherwise it is where something was drawn. */
  chosen: boolean;
}

type Paper = Pick<Folio, 'text' | 'leaves'>;

/** The passages of a track in the order of time: what was chosen, and what was drawn about without being chosen. */
function passagesOf(track: Track, paper: Paper): Passage[] {
  const { strokes, passages } = timelineOf(track);
  const chosen = passages.map(({ at, anchor }): Passage => ({ at, anchor, strokes: [], chosen: true }));
  const kept = strokes.filter(({ until }) => until === Infinity);
  const drawn = kept.map((stroke): Passage => ({ at: stroke.at, anchor: WHOLE, strokes: [stroke], chosen: false }));
  const made: Passage[] = [];
  for (const next of [...chosen, ...drawn].toSorted((a, b) => a.at - b.at)) {
    const last = made.at(-1);
    if (next.chosen) {
      if (last?.chosen && (same(last.anchor, next.anchor) || isCorrection(last, next))) last.anchor = next.anchor;
      else made.push(next);
      continue;
    }
    const [stroke] = next.strokes;
    const goesWith = last && isNear(stroke!.placed, last.anchor, paper);
    if (goesWith) last.strokes.push(stroke!);
    else made.push(next);
    const now = goesWith ? last : next;
    if (!now.chosen) now.anchor = anchorOf(now.strokes, paper);
  }
  return made;
}

const anchorOf = (strokes: readonly TimedStroke[], paper: Paper): Anchor =>
  drawingOf(
    strokes.map(({ placed }) => placed),
    paper,
  )?.anchor ?? WHOLE;

const WHOLE: Anchor = { type: 'whole' };
const same = (a: Anchor, b: Anchor): boolean => JSON.stringify(a) === JSON.stringify(b);
const isCorrection = (last: Passage, next: Passage): boolean =>
  last.strokes.length === 0 && next.at - last.at < CORRECTED_WITHIN;

/** What is known of a take beside its track. */
export type Heard = Pick<TalkTake, 'duration' | 'pauses' | 'words'>;

/**
 * The remarks that a take would make, split at the pauses that belong to the changes of passage ({@link splitTake}).
 * @returns none where no passage was chosen or drawn about
 */
export function partsOf(track: Track, heard: Heard, paper: Paper): Part[] {
  const passages = passagesOf(track, paper);
  const keys = track.filter(isOf('kind')).filter(({ at }) => at > 0);
  const cuts = splitTake({ ...heard, selections: passages, keys });
  return passages.map(({ anchor, strokes }, index) => {
    const start = cuts[index - 1]?.at ?? 0;
    const end = cuts[index]?.at ?? heard.duration;
    return {
      ...{ start, end, anchor },
      // A key belongs to the next as soon as that is spoken about, or chosen.
      kind: kindBefore(track, Math.min(passages[index + 1]?.at ?? Infinity, cuts[index]?.at ?? Infinity)),
      strokes: strokes.map(({ placed }) => placed),
      doubt: cuts[index - 1]?.doubt ?? 0,
    };
  });
}

/** Moves the beginning of a part to a moment in seconds; what the part before loses the part gets, and the other way round. */
export function moveStart(parts: readonly Part[], index: number, at: number): Part[] {
  const before = parts[index - 1];
  const part = parts[index];
  if (!before || !part) return [...parts];
  const start = Math.min(Math.max(at, before.start), part.end);
  return parts.with(index - 1, { ...before, end: start }).with(index, { ...part, start, doubt: 0 });
}

/** The pause next to the beginning of a part, earlier or later, inside of it and of the part before; its middle in seconds. */
export function nextPause(
  parts: readonly Part[],
  index: number,
  pauses: readonly Span[],
  by: 1 | -1,
): number | undefined {
  const [before, part] = [parts[index - 1], parts[index]];
  if (!before || !part) return undefined;
  const middles = pauses
    .map(({ start, end }) => (start + end) / 2)
    .filter((at) => at > before.start && at < part.end && (at - part.start) * by > 0.01);
  return by > 0 ? middles.toSorted((a, b) => a - b)[0] : middles.toSorted((a, b) => b - a)[0];
}

/** The middle of the pause nearest to a moment, where one is not further away than this; the moment itself where none is. In seconds. */
export function nearestPause(pauses: readonly Span[], at: number, within = 1): number {
  const middles = pauses.map(({ start, end }) => (start + end) / 2).filter((one) => Math.abs(one - at) <= within);
  return middles.reduce((best, one) => (Math.abs(one - at) < Math.abs(best - at) ? one : best), middles[0] ?? at);
}

/** A part and the next as one, about the passage of the first. */
export function mergeWithNext(parts: readonly Part[], index: number): Part[] {
  const [part, next] = [parts[index], parts[index + 1]];
  if (!part || !next) return [...parts];
  const one = { ...part, end: next.end, strokes: [...part.strokes, ...next.strokes] };
  return parts.toSpliced(index, 2, one);
}

/** A part as two about the same passage; its strokes stay with the first. */
export function splitAt(parts: readonly Part[], index: number, at: number): Part[] {
  const part = parts[index];
  if (!part || at <= part.start || at >= part.end) return [...parts];
  return parts.toSpliced(index, 1, { ...part, end: at }, { ...part, start: at, strokes: [], doubt: 0 });
}
