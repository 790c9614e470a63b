import type { Span } from './edit.ts';

/** Seconds over which loudness is compared: longer than a period of any voice, shorter than any consonant. */
const WINDOW = 0.012;

/**
 * The moment of least energy between two others, in seconds: there a cut is heard least.
 * @param samples one channel
 * @param rate samples per second
 * @param seconds over which energy is summed up
 */
export function quietestMoment(
  samples: Float32Array,
  rate: number,
  { start, end }: Span,
  seconds: number = WINDOW,
): number {
  const [from, to] = [Math.max(0, Math.round(start * rate)), Math.min(samples.length, Math.round(end * rate))];
  const window = Math.round(seconds * rate);
  if (to - from <= window) return (start + end) / 2;
  const power = (i: number): number => samples[i]! ** 2;
  let sum = 0;
  for (let i = from; i < from + window; i++) sum += power(i);
  // Where all is equally quiet, the middle is farthest from both words.
  const middle = (from + to - window) / 2;
  let [best, least] = [from, Infinity];
  for (let i = from; ; i++) {
    const near = Math.abs(i - middle) < Math.abs(best - middle);
    if (sum < least - 1e-9 || (sum < least + 1e-9 && near)) [best, least] = [i, sum];
    if (i + window >= to) break;
    sum += power(i + window) - power(i);
  }
  return (best + window / 2) / rate;
}
