import type { Span } from '#core/audio';
import { spoken } from './token.ts';
import type { Word } from './transcript.ts';

/** What speakers say while they think, by language; common practice in transcription. */
const FILLERS: Record<string, readonly string[]> = {
  en: ['um', 'uh', 'erm', 'er', 'uhm', 'hm', 'hmm', 'mm', 'mhm'],
  fr: ['euh', 'heu', 'hum', 'ben'],
  de: ['äh', 'ähm', 'öh', 'hm'],
  es: ['eh', 'em', 'este'],
};

/** Seconds of silence inside of a remark that may be shortened, and what is left of it. */
export const LONG_PAUSE = 1.2;
const PAUSE_LEFT = 0.4;

/** Positions of the words that say nothing. */
export function fillers(words: readonly Word[], language: string): number[] {
  const known = new Set(FILLERS[language.split('-')[0]!.toLowerCase()] ?? FILLERS.en);
  return words.flatMap(({ word }, index) => (known.has(spoken(word)) ? [index] : []));
}

/** What of each long pause between two words can go, in seconds. */
export const longPauses = (words: readonly Word[]): Span[] =>
  words.flatMap(({ end }, index) => {
    const next = words[index + 1];
    if (!next || next.start - end < LONG_PAUSE) return [];
    return [{ start: end + PAUSE_LEFT / 2, end: next.start - PAUSE_LEFT / 2 }];
  });
