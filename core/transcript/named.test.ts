import { describe, expect, it } from 'vitest';
import { addressing, namedIn } from './index.ts';

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

describe('addressing', () => {
  it.each([
    ['Hello Ines, look.', [0, 1]],
    ['Good morning, Sione. Well.', [0, 1, 2]],
    ['The graph Ines drew', [2]],
    ['Look here.', []],
  ])('%s', (text, expected) => {
    const words = text.split(' ');
    expect(addressing(words, namedIn(words, CLASS))).toEqual(expected);
  });
});
