/** The largest value that a peak can have; a full-scale sample is drawn at this height. */
export const PEAK_FULL_SCALE = 255;

/**
 * The outline of a recording for drawing: the largest magnitude in each of `count` equal slices.
 * @param samples one channel, −1 to 1
 * @param count how many slices; fewer come back where there are fewer samples
 * @returns integers from 0 to {@link PEAK_FULL_SCALE}
 */
export function peaks(samples: Float32Array, count: number): number[] {
  const slices = Math.min(count, samples.length);
  return Array.from({ length: slices }, (_, slice) => {
    const from = Math.floor((slice * samples.length) / slices);
    const to = Math.floor(((slice + 1) * samples.length) / slices);
    let loudest = 0;
    for (let i = from; i < to; i++) loudest = Math.max(loudest, Math.abs(samples[i]!));
    return Math.round(Math.min(1, loudest) * PEAK_FULL_SCALE);
  });
}
