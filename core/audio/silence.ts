import type { Span } from './edit.ts';
import { levelDbfs, SILENCE_DBFS } from './level.ts';

export const FRAME_SECONDS = 0.01;
/** dB above the quiet of the room that count as sound. */
const ABOVE_ROOM = 9;
/** dB below the loudest speech that still count, however quiet the room is. */
const BELOW_SPEECH = 40;
/** Below this nobody speaks, in dBFS. */
const INAUDIBLE = -65;
/** Frames: a click is shorter than any sound of speech. */
const SHORTEST = 3;

export interface Padding {
  /** Seconds left before the first sound: consonants begin softly. */
  before: number;
  after: number;
}

export const PADDING: Padding = { before: 0.2, after: 0.3 };

/** The level of each hundredth of a second, in dBFS. */
export function frameLevels(samples: Float32Array, rate: number): number[] {
  const frame = Math.round(rate * FRAME_SECONDS);
  return Array.from({ length: Math.floor(samples.length / frame) }, (_, index) =>
    levelDbfs(samples.subarray(index * frame, (index + 1) * frame)),
  );
}

/**
 * Where sound begins and ends, with some room around it.
 * @param samples one channel, −1 to 1
 * @param rate samples per second
 * @returns seconds; undefined where nothing stands out of the silence
 */
export function audibleSpan(samples: Float32Array, rate: number, padding: Padding = PADDING): Span | undefined {
  const levels = frameLevels(samples, rate);
  const threshold = thresholdOf(levels);
  const sounds = levels.map((level) => level > threshold);
  const first = sounds.findIndex((_, index) => isRun(sounds, index));
  if (first < 0) return undefined;
  const last = sounds.findLastIndex((_, index) => isRun(sounds, index - SHORTEST + 1));
  return {
    start: Math.max(0, first * FRAME_SECONDS - padding.before),
    end: Math.min(samples.length / rate, (last + 1) * FRAME_SECONDS + padding.after),
  };
}

const isRun = (sounds: readonly boolean[], index: number): boolean =>
  index >= 0 && Array.from({ length: SHORTEST }, (_, k) => sounds[index + k]).every(Boolean);

/** Between the room and the voice: just above the quietest frames, and never more than some way below the loudest. */
export function thresholdOf(levels: readonly number[]): number {
  const sorted = [...levels].sort((a, b) => a - b);
  const at = (share: number): number => sorted[Math.floor((sorted.length - 1) * share)] ?? SILENCE_DBFS;
  const [room, speech] = [at(0.05), at(0.95)];
  // Somebody who speaks all the time leaves no frame to hear the room in.
  const floor = Math.min(room + ABOVE_ROOM, speech - ABOVE_ROOM);
  return Math.max(INAUDIBLE, floor, speech - BELOW_SPEECH);
}
