/** What silence is reported as, in dBFS. */
export const SILENCE_DBFS = -100;

/**
 * The level of a short stretch of sound: its root mean square in dB relative to full scale.
 * A full-scale sine reads −3.01 (AES17 adds 3.01 dB to make that 0; this does not).
 * @param samples one channel, −1 to 1
 * @returns dBFS, from {@link SILENCE_DBFS} to 0
 */
export function levelDbfs(samples: Float32Array): number {
  let sum = 0;
  for (const sample of samples) sum += sample * sample;
  if (sum === 0) return SILENCE_DBFS;
  return Math.min(0, Math.max(SILENCE_DBFS, 10 * Math.log10(sum / samples.length)));
}
