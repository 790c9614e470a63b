import { limit } from './limit.ts';
import { loudness } from './loudness.ts';
import { frameLevels } from './silence.ts';
import { speechLoudness } from './speech-loudness.ts';
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
/** dB by which a voice is raised in any room, and dBFS that the noise of a room is raised to beyond that. */
const LEAST_MOST_GAIN = 12;
const QUIET_ROOM = -52;
/** LU that limiting may leave to the target: nobody hears less. */
const NEAR = 0.3;
const ROUNDS = 2;
/** dB kept from the ceiling, for what encoding and a changing gain add. */
const MARGIN = 0.2;

const linear = (decibels: number): number => 10 ** (decibels / 20);

/** What no sample of a remark is above, from 0 to 1. */
export const CEILING = linear(REMARK_LEVEL.ceiling - MARGIN);

/**
 * Brings a recording to a loudness; peaks that would be above the ceiling are turned down smoothly.
 * @param samples one channel, −1 to 1
 * @param rate samples per second
 * @returns the same samples where nothing is to be heard
 */
export function levelled(samples: Float32Array, rate: number, target: LevelTarget = REMARK_LEVEL): Float32Array {
  const ceiling = target.ceiling - MARGIN;
  const missing = target.loudness - heardLoudness(samples, rate);
  if (!Number.isFinite(missing)) return samples;
  const peak = truePeak([samples]);
  const most = mostGain(samples, rate);
  let gain = Math.min(most, missing);
  if (peak + gain <= ceiling) return amplified(samples, gain);
  let result = limit(amplified(samples, gain), rate, linear(ceiling));
  for (let round = 1; round < ROUNDS && gain < most; round++) {
    const left = target.loudness - heardLoudness(result, rate);
    if (left < NEAR) break;
    gain = Math.min(most, gain + left);
    result = limit(amplified(samples, gain), rate, linear(ceiling));
  }
  const over = truePeak([result]) - target.ceiling;
  return over > 0 ? amplified(result, -over) : result;
}

/** Seconds from which on the gates of BS.1770 alone leave out the silence. */
const LONG_ENOUGH = 1;

const heardLoudness = (samples: Float32Array, rate: number): number =>
  samples.length / rate < LONG_ENOUGH
    ? speechLoudness(samples, rate)
    : loudness({ channels: [samples], rate }).integrated;

/** By how many dB a recording may be raised: a whisper in a noisy room is not made a voice in a noisier one. */
export function mostGain(samples: Float32Array, rate: number): number {
  const levels = frameLevels(samples, rate).sort((a, b) => a - b);
  const room = levels[Math.floor((levels.length - 1) * 0.05)] ?? QUIET_ROOM;
  return Math.min(MOST_GAIN, Math.max(LEAST_MOST_GAIN, QUIET_ROOM - room));
}

/** The same sound, so many dB louder. */
export function amplified(samples: Float32Array, decibels: number): Float32Array {
  const factor = linear(decibels);
  const result = new Float32Array(samples.length);
  for (let i = 0; i < samples.length; i++) result[i] = samples[i]! * factor;
  return result;
}
