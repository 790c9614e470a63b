import { folded } from './token.ts';

/** Parts of names that are shorter are no names in a sentence: "de", "Al", "Jo" would be found everywhere. */
const SHORTEST = 3;

const bare = (word: string): string => folded(word.replace(/['’]s?$/u, ''));

/**
 * Positions of the words that are a part of somebody's name, in whatever form a recogniser or a hurried hand wrote them.
 * @param words as they stand in a text, with their punctuation
 * @param names of people, e.g. `Ines Bettencourt`
 */
export function namedIn(words: readonly string[], names: readonly string[]): number[] {
  const parts = new Set(
    names.flatMap((name) => name.split(/[\s-]+/u).map(bare)).filter(({ length }) => length >= SHORTEST),
  );
  return words.flatMap((word, index) => (parts.has(bare(word.replace(/[^\p{L}\p{M}]+$/u, ''))) ? [index] : []));
}
