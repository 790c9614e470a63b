import { interpolatedPeak, largestIn, TRUE_PEAK_DELAY } from './true-peak.ts';

/** Seconds over which the gain goes down before a peak, and up again behind it. */
const LOOK_AHEAD_SECONDS = 0.005;
const BLOCK = 32;

/**
 * Turns peaks down, and what is around them smoothly, so that no true peak is above the ceiling. Everything else is untouched.
 * @param samples one channel
 * @param ceiling linear, e.g. 0.891 for −1 dBTP
 */
export function limit(samples: Float32Array, rate: number, ceiling: number): Float32Array {
  const blocks = Math.ceil(samples.length / BLOCK);
  const wanted = Float32Array.from({ length: blocks }, (_, block) => {
    const [from, to] = [block * BLOCK, Math.min((block + 1) * BLOCK, samples.length)];
    // Half of full scale can never interpolate to more than the ceiling.
    if (largestIn(samples, Math.max(0, from - TRUE_PEAK_DELAY * 2), to) < ceiling / 2) return 1;
    const peak = Math.max(largestIn(samples, from, to), interpolatedPeak(samples, from, to + TRUE_PEAK_DELAY));
    return peak > ceiling ? ceiling / peak : 1;
  });
  if (wanted.every((gain) => gain === 1)) return samples.slice();
  const reach = Math.max(1, Math.round((LOOK_AHEAD_SECONDS * rate) / BLOCK));
  const gains = smoothed(lowest(wanted, reach), reach);
  const result = new Float32Array(samples.length);
  for (let block = 0; block <= blocks; block++) {
    // From the middle of one block to the middle of the next the gain goes straight.
    const [before, after] = [gains[Math.max(0, block - 1)]!, gains[Math.min(block, blocks - 1)]!];
    const from = (block - 0.5) * BLOCK;
    for (let i = Math.max(0, from), to = Math.min(samples.length, from + BLOCK); i < to; i++)
      result[i] = samples[i]! * (before + ((after - before) * (i - from)) / BLOCK);
  }
  return result;
}

/** The lowest value around each; one more than the smoothing reaches, since gains are drawn between the middles of blocks. */
const lowest = (values: Float32Array, reach: number): Float32Array =>
  values.map((_, i) => {
    let least = 1;
    const to = Math.min(values.length - 1, i + reach + 1);
    for (let k = Math.max(0, i - reach - 1); k <= to; k++) least = Math.min(least, values[k]!);
    return least;
  });

const smoothed = (values: Float32Array, reach: number): Float32Array =>
  values.map((_, i) => {
    let sum = 0;
    for (let k = i - reach; k <= i + reach; k++) sum += values[Math.min(values.length - 1, Math.max(0, k))]!;
    return sum / (2 * reach + 1);
  });
