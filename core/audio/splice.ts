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
    const first = Math.max(from - before, from - at);
    const last = Math.min(to + after, from - at + result.length);
    for (let i = first; i < last; i++) result[at + i - from]! += samples[i] ?? 0;
    const scale = (i: number, gain: number): void => {
      if (i >= first && i < last) result[at + i - from]! -= (samples[i] ?? 0) * (1 - gain);
    };
    const fadeIn = fadesIn ? half + before : 0;
    const fadeOut = fadesOut ? half + after : 0;
    for (let k = 0; k < Math.max(fadeIn, fadeOut); k++) {
      const [rising, falling] = [from - before + k, to + after - 1 - k];
      // In a piece shorter than its fades the smaller gain counts.
      if (k < fadeIn) scale(rising, Math.min(fade((k + 0.5) / fadeIn), gainAtEnd(rising)));
      if (k < fadeOut && falling >= from - before + fadeIn) scale(falling, fade((k + 0.5) / fadeOut));
    }
    function gainAtEnd(i: number): number {
      const left = to + after - 1 - i;
      return left < fadeOut ? fade((left + 0.5) / fadeOut) : 1;
    }
    at += to - from;
  });
  return result;
}

const index = (seconds: number, { length }: Float32Array, rate: number): number =>
  Math.min(length, Math.max(0, Math.round(seconds * rate)));

/** A quarter of a sine: two of them against each other keep the power of two sounds that have nothing to do with each other. */
const fade = (share: number): number => Math.sin((Math.PI / 2) * Math.min(1, Math.max(0, share)));
