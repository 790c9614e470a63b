import { describe, expect, it } from 'vitest';
import { fileNameOf } from './index.ts';

describe('a name of a file', () => {
  it.each([
    ['A walk: part 1/2?', 'A walk part 1 2'],
    ['Мост, přes. ', 'Мост, přes'],
    ['a\u0000b\nc', 'a b c'],
    ['...', 'nothing'],
    ['x'.repeat(200), 'x'.repeat(120)],
  ])('%j is %j', (name, expected) => {
    expect(fileNameOf(name, 'nothing')).toBe(expected);
  });
});
