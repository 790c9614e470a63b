import { limit } from './limit.ts';
import { loudness } from './loudness.ts';
import { truePeak } from './true-peak.ts';

export interface LevelTarget {
  /** LUFS. */
  loudness: number;
  /** dBTP. */
  ceiling: number;
}

/** What all remarks are brought to. */
export const REMARK_LEVEL: LevelTarget = { loudness: -16, ceiling: -1 };

/** dB. More would bring up the noise of the room instead of a voice. */
const MOST_GAIN = 30;
/** LU that limiting may leave to the target: nobody hears less. */
const NEAR = 0.3;
const ROUNDS = 2;
/** dB kept from the ceiling, for what encoding and a changing gain add. */
const MARGIN = 0.2;

/**
 * Brings a recording to a loudness; peaks that would be above the ceiling are turned down smoothly.
 * @param samples one channel, −1 to 1
 * @param rate samples per second
 * @returns the same samples where nothing is to be heard
 */
export function levelled(samples: Float32Array, rate: number, target: LevelTarget = REMARK_LEVEL): Float32Array {
  const ceiling = target.ceiling - MARGIN;
  const missing = target.loudness - loudness({ channels: [samples], rate }).integrated;
  if (!Number.isFinite(missing)) return samples;
  const peak = truePeak([samples]);
  let gain = Math.min(MOST_GAIN, missing);
  if (peak + gain <= ceiling) return amplified(samples, gain);
  let result = limit(amplified(samples, gain), rate, linear(ceiling));
  for (let round = 1; round < ROUNDS && gain < MOST_GAIN; round++) {
    const left = target.loudness - loudness({ channels: [result], rate }).integrated;
    if (left < NEAR) break;
    gain = Math.min(MOST_GAIN, gain + left);
    result = limit(amplified(samples, gain), rate, linear(ceiling));
  }
  const over = truePeak([result]) - target.ceiling;
  return over > 0 ? amplified(result, -over) : result;
}

function amplified(samples: Float32Array, decibels: number): Float32Array {
  const factor = linear(decibels);
  const result = new Float32Array(samples.length);
  for (let i = 0; i < samples.length; i++) result[i] = samples[i]! * factor;
  return result;
}

const linear = (decibels: number): number => 10 ** (decibels / 20);
