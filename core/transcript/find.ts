import { withoutEnds } from '../text/index.ts';
import { tokens } from './token.ts';
import type { Word } from './transcript.ts';

/** Text as it is searched: without capitals and accents, and with one sort of apostrophe. The database folds alike. */
export const searchable = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFD')
    .replaceAll(/[\u0300-\u036f]/gu, '')
    .replaceAll('’', "'");

/** A word that is looked for: as a whole, or as the beginning of one. */
export interface SearchTerm {
  text: string;
  whole: boolean;
}

/** What is looked for: every one of these has to be there. The last may still be typed, so it is a beginning until a space ends it. */
export function searchTerms(query: string): SearchTerm[] {
  const words = tokens(searchable(query))
    .map(({ text }) => withoutEnds(text, /[^\p{L}\p{N}]/u))
    .filter((term) => term !== '');
  const ended = /[^\p{L}\p{N}]$/u.test(query);
  const last = words.length - 1;
  return words
    .map((text, index) => ({ text, whole: ended || index < last }))
    .filter(({ text }, index) => words.lastIndexOf(text) === index);
}

const termPattern = (term: string): string => term.replaceAll(/[\\^$.*+?()[\]{}|/]/g, '\\$&');

/** Scripts that put no spaces between words: a term may begin anywhere in them. The database takes them sign by sign, too. */
const UNSPACED =
  /^[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Myanmar}\p{Script=Khmer}]/u;

/** Whether a word, or a part of one such as after a hyphen, is a term or begins with it. */
const matchers = (terms: readonly SearchTerm[]): ((word: string) => boolean)[] =>
  terms.map(({ text, whole }) => {
    const unspaced = UNSPACED.test(text);
    const begin = unspaced ? '' : '(?:^|[^\\p{L}\\p{N}])';
    const end = whole && !unspaced ? '(?![\\p{L}\\p{N}])' : '';
    const pattern = new RegExp(`${begin}${termPattern(text)}${end}`, 'v');
    return (word) => pattern.test(searchable(word));
  });

/** Positions of the words that a search hits, in order. */
export function foundWords(words: readonly string[], query: string): number[] {
  const hits = matchers(searchTerms(query));
  return words.flatMap((word, index) => (hits.some((hit) => hit(word)) ? [index] : []));
}

/**
 * The moment from which a hit is played, in seconds: where the terms stand one after the other, or else where the first of
 * them is said; undefined where none is.
 */
export function foundAt(words: readonly Word[], query: string): number | undefined {
  const hits = matchers(searchTerms(query));
  const has = (hit: (word: string) => boolean, at: number): boolean => at < words.length && hit(words[at]!.word);
  const phrase = words.findIndex((_, at) => hits.length > 0 && hits.every((hit, i) => has(hit, at + i)));
  const index = phrase >= 0 ? phrase : words.findIndex((_, at) => hits.some((hit) => has(hit, at)));
  return words[index]?.start;
}
