import { heldFrom, LETTER_UNITS, type KeptOnWords } from './words.ts';
import { unpackPoints } from './pack.ts';
import { boxAround, type Stroke } from './stroke.ts';
import { SURFACE_UNITS } from './surface.ts';

/** The strokes of a remark on words, each with its own words. Inverse of {@link gather}. @param start of the remark's passage */
export const takeApart = (strokes: readonly Stroke[], start: number): KeptOnWords[] =>
  strokes.map((stroke) => {
    const from = firstHeld(stroke);
    const length = lastHeld(stroke) - from;
    return { stroke: heldFrom(stroke, -from), start: start + from, end: start + from + Math.max(1, length) };
  });

/** Strokes that belong together, as those of one remark; at least one. */
export function gather(parts: readonly KeptOnWords[]): { strokes: Stroke[]; start: number; end: number } {
  const start = Math.min(...parts.map((part) => part.start));
  const end = Math.max(...parts.map((part) => part.end));
  return { strokes: parts.map((part) => heldFrom(part.stroke, part.start - start)), start, end };
}

function firstHeld({ hold, points }: Stroke): number {
  if (hold?.type !== 'along') return hold?.start ?? 0;
  return Math.max(0, Math.round(Math.min(...unpackPoints(points).map(({ x }) => x)) / LETTER_UNITS));
}

function lastHeld({ hold, points }: Stroke): number {
  if (hold?.type === 'around') return hold.end;
  if (hold?.type === 'free' || hold?.type === 'beside') return hold.start + 1;
  return Math.round(Math.max(...unpackPoints(points).map(({ x }) => x)) / LETTER_UNITS);
}

/** Smallest part of a leaf that can be seen and pressed, as a fraction of its width. */
const SMALLEST = 0.01;

/**
 * The part of a page, slide or picture that some strokes take up, as fractions of its size.
 * @param ratio of the leaf: its width by its height
 */
export function regionOfStrokes(
  strokes: readonly Stroke[],
  ratio: number,
): { x: number; y: number; width: number; height: number } {
  const { left, top, right, bottom } = boxAround(
    strokes.flatMap(({ points, width }) =>
      unpackPoints(points).flatMap(({ x, y }) => [
        { x: (x - width / 2) / SURFACE_UNITS, y: ((y - width / 2) / SURFACE_UNITS) * ratio },
        { x: (x + width / 2) / SURFACE_UNITS, y: ((y + width / 2) / SURFACE_UNITS) * ratio },
      ]),
    ),
  );
  const x = within(left, 0, 1 - SMALLEST);
  const y = within(top, 0, 1 - SMALLEST);
  return {
    ...{ x, y },
    width: within(right - x, SMALLEST, 1 - x),
    height: within(bottom - y, SMALLEST, 1 - y),
  };
}

const within = (value: number, low: number, high: number): number => Math.min(high, Math.max(low, value));

/** Whether some strokes stand on the free paper to the right of their leaf. */
export const areBeside = (strokes: readonly Stroke[]): boolean =>
  strokes.some(({ hold, points }) =>
    hold ? hold.type === 'beside' : unpackPoints(points).some(({ x }) => x > SURFACE_UNITS * 1.005),
  );
