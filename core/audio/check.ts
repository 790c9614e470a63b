import { levelDbfs } from './level.ts';
import { loudness } from './loudness.ts';
import { audibleSpan } from './silence.ts';

/** What a try of a microphone sounds like. */
export type MicrophoneVerdict = 'silent' | 'quiet' | 'clipping' | 'good';

/** Nothing arrives at all: the noise of a microphone is louder than this, in dBFS. */
const DEAD = -75;
/** LUFS; quieter speech can be brought up, but its noise comes along (our choice). */
const TOO_QUIET = -38;
/** A sample at full scale is an accident, this many in a row are a flat top. */
const FLAT_TOP = 3;
const FULL_SCALE = 0.999;

/** @param samples one channel, −1 to 1, in which somebody was asked to speak */
export function microphoneVerdict(samples: Float32Array, rate: number): MicrophoneVerdict {
  if (levelDbfs(samples) < DEAD || !audibleSpan(samples, rate)) return 'silent';
  if (hasFlatTops(samples)) return 'clipping';
  return loudness({ channels: [samples], rate }).integrated < TOO_QUIET ? 'quiet' : 'good';
}

function hasFlatTops(samples: Float32Array): boolean {
  let run = 0;
  for (const sample of samples) {
    run = Math.abs(sample) >= FULL_SCALE ? run + 1 : 0;
    if (run >= FLAT_TOP) return true;
  }
  return false;
}
