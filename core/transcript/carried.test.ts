import { describe, expect, it } from 'vitest';
import { carried, proportional, shared, textOfWords, translatedWords, type Word } from './index.ts';

const words: Word[] = [
  { word: 'the', start: 0, end: 0.2, confidence: 0.9 },
  { word: 'tied', start: 0.2, end: 0.6, confidence: 0.1 },
  { word: 'turns', start: 0.6, end: 1, confidence: 0.9 },
];

describe('words of a mended text', () => {
  it('keep their times; one that replaces another takes its time and is not doubted any more', () => {
    expect(carried(words, 'The tide turns.', 2)).toEqual([
      { word: 'The', start: 0, end: 0.2, confidence: 0.9 },
      { word: 'tide', start: 0.2, end: 0.6 },
      { word: 'turns.', start: 0.6, end: 1, confidence: 0.9 },
    ]);
  });

  it('share what is free where they are new', () => {
    const more = carried(words, 'the tied turns here now', 2);
    expect(more.slice(3)).toEqual([
      { word: 'here', start: 1, end: 1 + 4 / 7 },
      { word: 'now', start: 1 + 4 / 7, end: 2 },
    ]);
  });

  it('are in order whatever is typed', () => {
    for (const text of ['', 'turns the', 'x', 'the the the the tied', 'a b c turns d e']) {
      const all = carried(words, text, 2);
      expect(textOfWords(all)).toBe(text);
      all.forEach(({ start, end }, i) => {
        expect(end).toBeGreaterThanOrEqual(start);
        if (i > 0) expect(start).toBeGreaterThanOrEqual(all[i - 1]!.end - 1e-9);
      });
    }
  });
});

describe('words without an acoustic model', () => {
  it('are as long as their letters are many', () => {
    expect(shared(['ab', 'abcd'], { start: 1, end: 4 })).toEqual([
      { word: 'ab', start: 1, end: 2 },
      { word: 'abcd', start: 2, end: 4 },
    ]);
  });

  it('stand in the stretches of speech, which end with a clause where one is near', () => {
    const speech = [
      { start: 0.5, end: 2.5 },
      { start: 4, end: 6.2 },
    ];
    const placed = proportional('Una frase corta, y otra frase más larga.', speech);
    const comma = placed.findIndex(({ word }) => word === 'corta,');
    expect(placed[comma]!.end).toBeCloseTo(2.5);
    expect(placed[comma + 1]!.start).toBe(4);
    expect(placed.at(-1)!.end).toBeCloseTo(6.2);
    expect(placed).toHaveLength(8);
  });

  it('are none where nobody speaks or nothing is said', () => {
    expect(proportional('words', [])).toEqual([]);
    expect(proportional(' ', [{ start: 0, end: 1 }])).toEqual([]);
  });

  it('follow the pauses of the original in a translation', () => {
    const original = [
      { word: 'Look.', start: 0, end: 1 },
      { word: 'Again.', start: 3, end: 4 },
    ];
    const translated = translatedWords('Mira. Otra vez.', original);
    expect(translated.map(({ start }) => Math.floor(start))).toEqual([0, 3, 3]);
    expect(translatedWords('x', [])).toEqual([]);
  });
});
