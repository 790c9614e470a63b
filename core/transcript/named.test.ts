import { describe, expect, it } from 'vitest';
import { namedIn } from './index.ts';

const CLASS = ['Ines Bettencourt', 'Sione Tuipulotu', 'Liang Meixiu', 'Jo Al-Sayed'];

describe('namedIn', () => {
  it.each([
    ['Well done, Ines.', [2]],
    ['inês you did it', [0]],
    ['Look at Sione’s graph, and at Tuipulotu’s.', [2, 6]],
    ['Say it once more: al jo', []],
    ['The line is long and the tide is low.', []],
    ['', []],
  ])('%s', (text, expected) => {
    expect(namedIn(text.split(' '), CLASS)).toEqual(expected);
  });
});
