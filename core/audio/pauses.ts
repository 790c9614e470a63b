import { max } from 'd3-array';
import type { Span } from './edit.ts';

/** A slice is a pause where it is not louder than this share of the loudest one; speech is 20 dB and more above its pauses (common practice). */
const QUIET_SHARE = 0.1;

/**
 * Splits a recording at its longest pauses, so that each stretch is one line of it.
 * @param peaks the loudest level of each of equal slices, as they are drawn
 * @param duration of the recording, in seconds
 * @param count how many lines were said, from 1; fewer stretches come back where there are not pauses enough
 * @returns stretches that follow each other from 0 to `duration`, in seconds
 */
export function splitAtPauses(peaks: readonly number[], duration: number, count: number): Span[] {
  const edges = [0, ...longestPauses(peaks, count - 1).map((at) => (at / peaks.length) * duration), duration];
  return edges.slice(1).map((end, index) => ({ start: edges[index]!, end }));
}

/** The middles of the longest runs of quiet slices, in their order; silence before and after what is said is none. */
function longestPauses(peaks: readonly number[], most: number): number[] {
  const quiet = (max(peaks) ?? 0) * QUIET_SHARE;
  const pauses: { from: number; to: number }[] = [];
  let from: number | undefined;
  for (const [at, peak] of peaks.entries()) {
    if (peak <= quiet) {
      from ??= at;
      continue;
    }
    if (from !== undefined && from > 0) pauses.push({ from, to: at });
    from = undefined;
  }
  return pauses
    .toSorted((a, b) => b.to - b.from - (a.to - a.from))
    .slice(0, Math.max(0, most))
    .map((pause) => (pause.from + pause.to) / 2)
    .toSorted((a, b) => a - b);
}
