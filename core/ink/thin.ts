import type { InkPoint } from './stroke.ts';

/** Pixels; nobody sees a quarter of one. */
export const TOLERANCE = 0.25;

/**
 * Leaves out points that can be told from those around them: at its moment, the straight way between its neighbours passes
 * within the tolerance of it. So the stroke keeps its look and its pace. Douglas and Peucker, Cartographica 10 (1973), with the
 * synchronised distance of Meratnia and de By (EDBT 2004).
 *
 * @param tolerance in the unit of the points
 */
export function thinPoints(points: readonly InkPoint[], tolerance = TOLERANCE): InkPoint[] {
  if (points.length < 3) return [...points];
  const kept = new Set([0, points.length - 1]);
  const spans: [number, number][] = [[0, points.length - 1]];
  for (let span = spans.pop(); span; span = spans.pop()) {
    const [from, to] = span;
    let [furthest, distance] = [-1, tolerance];
    for (let index = from + 1; index < to; index++) {
      const away = distanceInTime(points[index]!, points[from]!, points[to]!);
      if (away > distance) [furthest, distance] = [index, away];
    }
    if (furthest < 0) continue;
    kept.add(furthest);
    spans.push([from, furthest], [furthest, to]);
  }
  return points.filter((_, index) => kept.has(index));
}

function distanceInTime(point: InkPoint, from: InkPoint, to: InkPoint): number {
  const whole = to.at - from.at;
  const share = whole > 0 ? (point.at - from.at) / whole : 0;
  const between = (key: 'x' | 'y'): number => from[key] + share * (to[key] - from[key]);
  return Math.hypot(point.x - between('x'), point.y - between('y'));
}
