import { describe, expect, it } from 'vitest';
import { foundAt, foundWords, searchable, searchTerms, tokens, type Word } from './index.ts';

const TEXT = 'Take these four words out. Then the Hadžić family’s four boats say more than words.';
const timed: Word[] = tokens(TEXT).map(({ text }, index) => ({ word: text, start: index, end: index + 0.9 }));
const written = timed.map(({ word }) => word);

describe('searching', () => {
  it('does not see capitals, accents and sorts of apostrophes', () => {
    expect(searchable('HADŽIĆ’S Ñandú')).toBe("hadzic's nandu");
    expect(searchable('قرأت')).toBe(searchable('قرأت'));
  });

  it('looks for every word of the query once, without its punctuation; the last one may go on', () => {
    expect(searchTerms('  “Four” words, fo')).toEqual([
      { text: 'four', whole: true },
      { text: 'words', whole: true },
      { text: 'fo', whole: false },
    ]);
    expect(searchTerms('four words four')).toEqual([
      { text: 'words', whole: true },
      { text: 'four', whole: false },
    ]);
    expect(searchTerms('four ')).toEqual([{ text: 'four', whole: true }]);
    expect(searchTerms(' – ?! ')).toEqual([]);
  });

  it('takes words whole, so that an article does not light up half of the text', () => {
    expect(foundWords(['these', 'the', 'Thessaly', 'the-end', 'readers'], 'the reader')).toEqual([1, 3, 4]);
    expect(foundWords(['these', 'the'], 'the ')).toEqual([1]);
    expect(foundWords(['these', 'the'], 'the')).toEqual([0, 1]);
  });

  it('finds words by their beginnings, also after a hyphen', () => {
    expect(foundWords(written, 'hadzic').map((index) => written[index])).toEqual(['Hadžić']);
    expect(foundWords(written, 'word').map((index) => written[index])).toEqual(['words', 'words.']);
    expect(foundWords(['half-open', 'reopened', 'OPEN.'], 'open')).toEqual([0, 2]);
    for (const odd of ["isn't", 'a/b', 'c++', '{d}', 'e[f]', 'g|h', 'i-j', '(k)', 'l^m', 'n$', 'o*p', 'q?r', 's\\t'])
      expect(foundWords(['x', odd], odd)).toEqual([1]);
    expect(foundWords(['3.5', '345', '(3.5'], '3.5')).toEqual([0, 2]);
    expect(foundWords(written, '')).toEqual([]);
  });

  it('finds words in the middle of a sentence where the script has no spaces', () => {
    expect(foundWords(['潮が引いた', '砂浜'], '引いた')).toEqual([0]);
    expect(foundWords(['潮が引いた', '砂浜'], '浜 ')).toEqual([1]);
    expect(foundWords(['น้ำขึ้นแล้ว'], 'ขึ้น')).toEqual([0]);
  });

  it('begins where the words stand together, or else with the first that is said', () => {
    expect(foundAt(timed, 'four boats')).toBe(written.indexOf('boats') - 1);
    expect(foundAt(timed, 'boats take')).toBe(0);
    expect(foundAt(timed, 'sand')).toBeUndefined();
    expect(foundAt(timed, '')).toBeUndefined();
    expect(foundAt([], 'four')).toBeUndefined();
  });
});
