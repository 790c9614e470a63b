import { tokens } from './token.ts';
import type { Word } from './transcript.ts';

/** Text as it is searched: without capitals and accents, and with one sort of apostrophe. The database folds alike. */
export const searchable = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFD')
    .replaceAll(/[\u0300-\u036f]/gu, '')
    .replaceAll('’', "'");

/** What is looked for: every one of these has to be there, as the beginning of a word. */
export const searchTerms = (query: string): string[] => [
  ...new Set(
    tokens(searchable(query))
      .map(({ text }) => text.replaceAll(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, ''))
      .filter((term) => term !== ''),
  ),
];

/** A term as a regular expression, in JavaScript as in PostgreSQL. */
export const termPattern = (term: string): string => term.replaceAll(/[\\^$.*+?()[\]{}|/]/g, '\\$&');

/** Whether a word, or a part of one such as after a hyphen, begins with a term. */
const beginnings = (terms: readonly string[]): ((word: string) => boolean)[] =>
  terms.map((term) => {
    const pattern = new RegExp(`(?:^|[^\\p{L}\\p{N}])${termPattern(term)}`, 'v');
    return (word) => pattern.test(searchable(word));
  });

/** Positions of the words that a search hits, in order. */
export function foundWords(words: readonly string[], query: string): number[] {
  const begins = beginnings(searchTerms(query));
  return words.flatMap((word, index) => (begins.some((begin) => begin(word)) ? [index] : []));
}

/**
 * The moment from which a hit is played, in seconds: where the terms stand one after the other, or else where the first of
 * them is said; undefined where none is.
 */
export function foundAt(words: readonly Word[], query: string): number | undefined {
  const begins = beginnings(searchTerms(query));
  const has = (begin: (word: string) => boolean, at: number): boolean => at < words.length && begin(words[at]!.word);
  const phrase = words.findIndex((_, at) => begins.length > 0 && begins.every((begin, i) => has(begin, at + i)));
  const index = phrase >= 0 ? phrase : words.findIndex((_, at) => begins.some((begin) => has(begin, at)));
  return words[index]?.start;
}
