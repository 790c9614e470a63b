import type { Span } from './edit.ts';

/** Seconds in which one side of a cut fades into the other. */
export const CROSSFADE_SECONDS = 0.01;

/**
 * The kept stretches of a recording, one behind the other. At each cut one side fades into the other with constant power, at
 * its two ends it fades in and out where something was taken away, so that nothing clicks. Its length is that of the
 * stretches together.
 * @param samples one channel
 * @param rate samples per second
 * @param kept in seconds; what lies outside of the recording is left out
 */
export function splice(samples: Float32Array, rate: number, kept: readonly Span[]): Float32Array {
  const pieces = kept
    .map(({ start, end }) => ({ from: index(start, samples, rate), to: index(end, samples, rate) }))
    .filter(({ from, to }) => to > from);
  const result = new Float32Array(pieces.reduce((sum, { from, to }) => sum + to - from, 0));
  const half = Math.round((CROSSFADE_SECONDS * rate) / 2);
  let at = 0;
  pieces.forEach(({ from, to }, number) => {
    const fadesIn = number > 0 || from > 0;
    const fadesOut = number < pieces.length - 1 || to < samples.length;
    // A cut lies in the middle of its fade, so each side reaches half a fade beyond it.
    const before = number > 0 ? half : 0;
    const after = number < pieces.length - 1 ? half : 0;
    for (let i = from - before; i < to + after; i++) {
      const place = at + i - from;
      if (place < 0 || place >= result.length) continue;
      const rise = fadesIn ? fade((i - from + before + 0.5) / (half + before)) : 1;
      const fall = fadesOut ? fade((to + after - i - 0.5) / (half + after)) : 1;
      result[place]! += (samples[i] ?? 0) * Math.min(rise, fall);
    }
    at += to - from;
  });
  return result;
}

const index = (seconds: number, { length }: Float32Array, rate: number): number =>
  Math.min(length, Math.max(0, Math.round(seconds * rate)));

/** A quarter of a sine: two of them against each other keep the power of two sounds that have nothing to do with each other. */
const fade = (share: number): number => Math.sin((Math.PI / 2) * Math.min(1, Math.max(0, share)));
