import { quietestMoment } from './quietest.ts';

/** Seconds of the quietest stretch, of which a room is made: too short to have a word in it. */
const STRETCH = 0.08;

/**
 * The sound of the room in which a recording was made, as long as wanted: its quietest stretch, forwards and backwards in turns, so
 * that it never jumps.
 * @param samples one channel
 * @param count how many samples are wanted
 */
export function roomTone(samples: Float32Array, rate: number, count: number): Float32Array {
  const length = Math.min(samples.length, Math.round(STRETCH * rate));
  if (length < 2) return new Float32Array(count);
  const middle = quietestMoment(samples, rate, { start: 0, end: samples.length / rate }, STRETCH);
  const from = Math.max(0, Math.min(samples.length - length, Math.round(middle * rate - length / 2)));
  return Float32Array.from({ length: count }, (_, index) => {
    const at = index % (2 * length);
    return samples[from + (at < length ? at : 2 * length - 1 - at)]!;
  });
}
