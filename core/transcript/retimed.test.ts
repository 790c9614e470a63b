import { describe, expect, it } from 'vitest';
import { retimed } from './index.ts';

const words = [
  { word: 'um', start: 0.2, end: 0.5 },
  { word: 'tide', start: 1, end: 1.4 },
  { word: 'turns', start: 1.5, end: 2 },
];

describe('retimed', () => {
  it('drops what was cut and shifts what follows', () => {
    const kept = [
      { start: 0.8, end: 1.45 },
      { start: 1.48, end: 2.2 },
    ];
    const [tide, turns] = retimed(words, null, kept);
    expect([tide!.word, turns!.word]).toEqual(['tide', 'turns']);
    expect(tide!.start).toBeCloseTo(0.2);
    expect(turns!.start).toBeCloseTo(0.67);
  });

  it('a cut through a word keeps the word where its middle is kept', () => {
    expect(retimed(words, null, [{ start: 1.1, end: 3 }])[0]).toMatchObject({ word: 'tide' });
    expect(retimed(words, null, [{ start: 1.3, end: 3 }])[0]).toMatchObject({ word: 'turns' });
  });

  it('leads from one rendition over the original to the next', () => {
    const before = [{ start: 0.1, end: 3 }];
    const heard = retimed(words, null, before);
    const again = retimed(heard, before, [{ start: 0, end: 3 }]);
    again.forEach(({ start }, index) => expect(start).toBeCloseTo(words[index]!.start));
  });
});
