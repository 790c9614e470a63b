import { describe, expect, it } from 'vitest';
import { shiftWords, textOfWords, wordsUntil } from './index.ts';

const words = [
  { word: 'Look', start: 0.1, end: 0.4 },
  { word: 'again.', start: 0.4, end: 0.9 },
];

describe('words', () => {
  it('count until a moment only when they were said to their end', () => {
    expect(textOfWords(wordsUntil(words, 0.9))).toBe('Look again.');
    expect(textOfWords(wordsUntil(words, 0.89))).toBe('Look');
    expect(wordsUntil(words, 0)).toEqual([]);
  });

  it('can be moved without moving their originals', () => {
    expect(shiftWords(words, 0.3)[0]!.start).toBeCloseTo(0.4);
    expect(words[0]!.start).toBe(0.1);
  });
});
