import { proportional } from './proportional.ts';
import type { Word } from './transcript.ts';

/**
 * Roughly when the words of a translation are said: shared out over the stretches in which the original speaks.
 * @param original words with times; none gives none
 */
export function translatedWords(text: string, original: readonly Word[]): Word[] {
  const stretches = original.reduce<{ start: number; end: number }[]>((spans, { start, end }) => {
    const last = spans.at(-1);
    if (last && start - last.end < SAME_STRETCH) last.end = end;
    else spans.push({ start, end });
    return spans;
  }, []);
  return proportional(text, stretches);
}

/** Seconds of silence that part two stretches. */
const SAME_STRETCH = 0.4;
