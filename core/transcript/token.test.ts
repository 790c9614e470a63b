import { describe, expect, it } from 'vitest';
import { folded, spoken, tokens } from './index.ts';

describe('tokens', () => {
  it('are the words with their punctuation, at their places', () => {
    const text = ' “Look,” she said – twice.';
    expect(tokens(text).map(({ text }) => text)).toEqual(['“Look,”', 'she', 'said –', 'twice.']);
    for (const { text: word, start, end } of tokens(text)) expect(text.slice(start, end)).toBe(word);
  });

  it('are none where there is nothing', () => {
    expect(tokens('  \n')).toEqual([]);
  });
});

describe('what is said of a word', () => {
  it.each([
    ['“Look,', 'look'],
    ['it’s', "it's"],
    ['half-way!', 'half-way'],
    ["'Tis", 'tis'],
    ['Ünlü.', 'ünlü'],
    ['–', ''],
  ])('%s → %s', (word, expected) => expect(spoken(word)).toBe(expected));

  it('is letters alone where accents do not count', () => {
    expect(folded('Hadžić')).toBe('hadzic');
    expect(folded('half-way')).toBe('halfway');
  });
});
