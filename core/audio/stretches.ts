import type { Span } from './edit.ts';
import { quietestMoment } from './quietest.ts';

/** Seconds: shorter than a pause between two sentences, longer than a closed mouth. */
const PAUSE = 0.2;

/**
 * Parts a long recording where it is quietest, into stretches that can be listened to on their own.
 * @param samples one channel
 * @param rate samples per second
 * @param longest seconds that no stretch goes beyond; none but the last is shorter than half of them
 * @returns seconds, in order, without gaps
 */
export function stretches(samples: Float32Array, rate: number, longest: number): Span[] {
  const length = samples.length / rate;
  const found: Span[] = [];
  let start = 0;
  while (length - start > longest) {
    const end = quietestMoment(samples, rate, { start: start + longest / 2, end: start + longest }, PAUSE);
    found.push({ start, end });
    start = end;
  }
  return [...found, { start, end: length }];
}
