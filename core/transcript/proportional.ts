import type { Span } from '#core/audio';
import { shared } from './carried.ts';
import { spoken, tokens } from './token.ts';
import type { Word } from './transcript.ts';

/**
 * Times of a known text where nothing listens to the words: each stretch of speech between two pauses takes as many words as
 * its share of all speech, and ends with a sentence or clause where one ends near by.
 * @param speech where somebody speaks, in seconds and in order
 */
export function proportional(text: string, speech: readonly Span[]): Word[] {
  const words = tokens(text).map((token) => token.text);
  const lengths = speech.map(({ start, end }) => Math.max(0, end - start));
  const seconds = lengths.reduce((sum, length) => sum + length, 0);
  if (words.length === 0 || seconds === 0) return [];
  const weights = words.map((word) => Math.max(1, spoken(word).length));
  const letters = weights.reduce((sum, weight) => sum + weight, 0);
  const ends = cumulated(weights).map((sum) => sum / letters);
  const placed: Word[] = [];
  let [from, passed] = [0, 0];
  speech.forEach((span, index) => {
    passed += lengths[index]! / seconds;
    const to = index === speech.length - 1 ? words.length : boundary(words, ends, from, passed);
    for (const word of shared(words.slice(from, to), span)) placed.push(word);
    from = to;
  });
  return placed;
}

/** How far from its share a stretch may end so that it ends with a clause: of all letters. */
const NEAR = 0.06;

function boundary(words: readonly string[], ends: readonly number[], from: number, share: number): number {
  let best = from;
  let least = Infinity;
  for (let to = from; to <= words.length; to++) {
    const distance = Math.abs((to === 0 ? 0 : ends[to - 1]!) - share);
    const clause = to > 0 && /[.!?,;:…][”’"')\]]*$/u.test(words[to - 1]!) ? NEAR : 0;
    if (distance - clause < least) [best, least] = [to, distance - clause];
  }
  return best;
}

function cumulated(values: readonly number[]): number[] {
  let sum = 0;
  return values.map((value) => (sum += value));
}
