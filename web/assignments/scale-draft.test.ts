import { describe, expect, it } from 'vitest';
import { bandsOf, bandWords, SCALES, scaleFault } from './scale-draft.ts';

describe('a scale while it is written', () => {
  it.each(SCALES)('comes back as it was: $title', ({ scale }) => {
    expect(scaleFault(bandWords(scale))).toBeUndefined();
    expect(bandsOf(bandWords(scale))).toEqual(scale);
  });

  it.each([
    [[{ grade: ' ', from: '0' }], 'Each step needs a name.'],
    [
      [
        { grade: 'A', from: '50' },
        { grade: 'A ', from: '0' },
      ],
      'Each name stands once in a scale.',
    ],
    ...['101', '-1', 'NaN', '', '1.234'].map((from): [{ grade: string; from: string }[], string] => [
      [{ grade: 'A', from }],
      'A step begins at a number from 0 to 100, with at most two decimals.',
    ]),
    [
      [
        { grade: 'A', from: '50' },
        { grade: 'B', from: '50,0' },
      ],
      'Two steps begin at the same share.',
    ],
  ])('%j: %s', (bands, sentence) => {
    expect(scaleFault(bands)).toBe(sentence);
  });
});
