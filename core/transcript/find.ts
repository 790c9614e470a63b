import { tokens } from './token.ts';
import type { Word } from './transcript.ts';

/** Text as it is searched: without capitals and accents, and with one sort of apostrophe. The database folds alike. */
export const searchable = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFD')
    .replaceAll(/[\u0300-\u036f]/gu, '')
    .replaceAll('’', "'");

/** What is looked for: every one of these has to be there, as a word or a part of one. */
export const searchTerms = (query: string): string[] => [
  ...new Set(
    tokens(searchable(query))
      .map(({ text }) => text.replaceAll(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, ''))
      .filter((term) => term !== ''),
  ),
];

/** Positions of the words that a search hits, in order. */
export function foundWords(words: readonly string[], query: string): number[] {
  const terms = searchTerms(query);
  return words.flatMap((word, index) => (terms.some((term) => searchable(word).includes(term)) ? [index] : []));
}

/**
 * The moment from which a hit is played, in seconds: where the terms stand one after the other, or else where the first of
 * them is said; undefined where none is.
 */
export function foundAt(words: readonly Word[], query: string): number | undefined {
  const terms = searchTerms(query);
  const said = words.map(({ word }) => searchable(word));
  const phrase = said.findIndex((_, at) => terms.length > 0 && terms.every((term, i) => said[at + i]?.includes(term)));
  const index = phrase >= 0 ? phrase : said.findIndex((word) => terms.some((term) => word.includes(term)));
  return words[index]?.start;
}
