import type { Span } from './edit.ts';
import { FRAME_SECONDS, frameLevels, thresholdOf } from './silence.ts';

/** Seconds of silence inside of speech that are no pause: a stop consonant closes the mouth for less. */
const SHORTEST_PAUSE = 0.25;
/** Seconds of sound that are no speech. */
const SHORTEST_SPEECH = 0.06;

/**
 * The stretches between pauses, by level alone.
 * @param samples one channel, −1 to 1
 * @param rate samples per second
 * @returns seconds, in order; empty where nothing stands out of the silence
 */
export function speechSpans(samples: Float32Array, rate: number): Span[] {
  const levels = frameLevels(samples, rate);
  const threshold = thresholdOf(levels);
  const spans: Span[] = [];
  levels.forEach((level, index) => {
    if (level <= threshold) return;
    const [start, end] = [index * FRAME_SECONDS, (index + 1) * FRAME_SECONDS];
    const last = spans.at(-1);
    if (last && start - last.end < SHORTEST_PAUSE) last.end = end;
    else spans.push({ start, end });
  });
  return spans.filter(({ start, end }) => end - start >= SHORTEST_SPEECH);
}

/** What lies between stretches of speech; before the first and after the last is no pause. */
export const pausesBetween = (spans: readonly Span[]): Span[] =>
  spans.slice(1).map(({ start }, index) => ({ start: spans[index]!.end, end: start }));
