import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { increasing } from './align.ts';
import { dense, plain } from './plain.ts';
import { Lexicon, wordRange, wordsOf } from './tokens.ts';

const wordsIn = (text: string): string[] => {
  const { starts, ends } = wordsOf(text, new Lexicon());
  return Array.from(starts, (start, index) => text.slice(start, ends[index]));
};
const sentencesIn = (text: string): string[][] => {
  const { sentences, sentenceCount } = wordsOf(text, new Lexicon());
  return Array.from({ length: sentenceCount }, (_, index) =>
    wordsIn(text).filter((_word, at) => sentences[at] === index),
  );
};

describe('wordsOf', () => {
  it('reads words with their hyphens and apostrophes, and no signs', () => {
    expect(wordsIn('The “well-known” sea’s edge – isn’t it? 3.5 m')).toEqual([
      ...['The', 'well-known', 'sea’s', 'edge', 'isn’t', 'it', '3', '5', 'm'],
    ]);
    expect(wordsIn(' -- … ')).toEqual([]);
  });

  it('finds the same words as the Unicode classes do, whatever the text', () => {
    const spaced = fc.string({
      unit: fc.constantFrom('a', 'É', 'ß', '9', ' ', '.', '-', '’', '\n', '🦀', '\u0301', 'я', '“'),
      maxLength: 40,
    });
    fc.assert(
      fc.property(spaced, (text) => {
        const expected = text.match(/[\p{L}\p{N}\p{M}]+(?:['’‐‑\u00ad-](?=[\p{L}\p{N}])[\p{L}\p{N}\p{M}]+)*/gu) ?? [];
        expect(wordsIn(text)).toEqual([...expected]);
      }),
    );
  });

  it('counts words as equal that differ in case, composition, hyphens and apostrophes', () => {
    const lexicon = new Lexicon();
    const ids = (text: string): number[] => [...wordsOf(text, lexicon).ids];
    expect(ids('Cafe\u0301 exam-ple don’t')).toEqual(ids('CAFÉ example dont'));
    expect(ids('ebb')).not.toEqual(ids('flood'));
  });

  it('takes each character for a word where a script has no spaces', () => {
    expect(wordsIn('潮は turns')).toEqual(['潮', 'は', 'turns']);
  });

  it('ends sentences at stops and lines, but not in numbers and broken lines', () => {
    expect(sentencesIn('One two. Three 3.5 m! “Four?” Five\nSix\nseven')).toEqual([
      ['One', 'two'],
      ['Three', '3', '5', 'm'],
      ['Four'],
      ['Five'],
      ['Six'],
      ['seven'],
    ]);
  });

  it('takes a long line that goes on with a small letter for one that was broken, unless an entry of a list begins there', () => {
    const first = 'We counted the birds on the mud at dawn, and once more';
    const linesIn = (text: string, items?: ReadonlySet<number>): number =>
      wordsOf(text, new Lexicon(), items).lines.at(-1)! + 1;
    expect(linesIn(`${first}\nwhen the tide had turned.`)).toBe(1);
    expect(linesIn(`${first}\nWhen the tide had turned.`)).toBe(2);
    expect(linesIn(`${first};\nwhen the tide had turned.`)).toBe(2);
    expect(linesIn(`${first}\nwhen the tide had turned.`, new Set([first.length + 1]))).toBe(2);
    expect(linesIn(`${first}\n\nwhen the tide had turned. It rained.`)).toBe(1);
  });

  it('knows which words a passage touches', () => {
    const words = wordsOf('one two three', new Lexicon());
    expect(wordRange(words, 4, 7)).toEqual({ from: 1, to: 2 });
    expect(wordRange(words, 2, 5)).toEqual({ from: 0, to: 2 });
    expect(wordRange(words, 3, 4)).toEqual({ from: 1, to: 1 });
  });
});

describe('plain and dense', () => {
  it('unify quotes, dashes and white space, and leave everything else', () => {
    expect(plain(' “It’s”\n–  a…\u00ad b ')).toBe('"It\'s" - a... b');
    expect(dense('a – b\nc')).toBe('a-bc');
    expect(plain('Ebb')).not.toBe(plain('ebb'));
  });
});

describe('increasing', () => {
  it('is as long as the longest that trying all finds, and ascends', () => {
    const longest = (values: number[]): number =>
      values
        .reduce<number[]>((best, value, index) => {
          const before = values.slice(0, index).flatMap((other, at) => (other < value ? [best[at]!] : []));
          return [...best, 1 + Math.max(0, ...before)];
        }, [])
        .reduce((most, length) => Math.max(most, length), 0);
    fc.assert(
      fc.property(fc.array(fc.nat(30), { maxLength: 12 }), (values) => {
        const found = increasing(values);
        expect(found).toHaveLength(longest(values));
        for (let i = 1; i < found.length; i++) {
          expect(found[i]!).toBeGreaterThan(found[i - 1]!);
          expect(values[found[i]!]!).toBeGreaterThan(values[found[i - 1]!]!);
        }
      }),
    );
  });
});
