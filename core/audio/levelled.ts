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
/** LU that limiting may leave to the target. */
const NEAR = 0.1;
const ROUNDS = 4;
/** dB kept from the ceiling, for what encoding and a changing gain add. */
const MARGIN = 0.2;

/**
 * Brings a recording to a loudness; peaks that would be above the ceiling are turned down smoothly.
 * @param samples one channel, −1 to 1
 * @param rate samples per second
 * @returns the same samples where nothing is to be heard
 */
export function levelled(samples: Float32Array, rate: number, target: LevelTarget = REMARK_LEVEL): Float32Array {
  const ceiling = linear(target.ceiling - MARGIN);
  let gain = 0;
  let result = samples;
  for (let round = 0; round < ROUNDS; round++) {
    const missing = target.loudness - loudness({ channels: [result], rate }).integrated;
    if (!Number.isFinite(missing) || Math.abs(missing) < NEAR) break;
    gain = Math.min(MOST_GAIN, gain + missing);
    const factor = linear(gain);
    const louder = samples.map((sample) => sample * factor);
    result = linear(truePeak([louder])) > ceiling ? limit(louder, rate, ceiling) : louder;
    if (gain === MOST_GAIN) break;
  }
  const over = truePeak([result]) - target.ceiling;
  return over > 0 ? result.map((sample) => sample * linear(-over)) : result;
}

const linear = (decibels: number): number => 10 ** (decibels / 20);
