import { withoutEnds } from '../text/index.ts';
import { folded } from './token.ts';

/** Words by which somebody is addressed before their name; common ones of some languages. */
const ADDRESS = new Set(
  'hello hi hey dear good morning afternoon evening bonjour bonsoir salut cher chere hallo liebe lieber guten morgen abend hola querida querido buenos buenas ola caro cara'.split(
    ' ',
  ),
);

/** Parts of names that are shorter are no names in a sentence: "de", "Al", "Jo" would be found everywhere. */
const SHORTEST = 3;

const bare = (word: string): string => folded(withoutEnds(word, /[^\p{L}\p{M}]/u, 'end').replace(/['’]s?$/u, ''));

/**
 * Positions of the words that are a part of somebody's name, in whatever form a recogniser or a hurried hand wrote them.
 * @param words as they stand in a text, with their punctuation
 * @param names of people, e.g. `Ines Bettencourt`
 */
export function namedIn(words: readonly string[], names: readonly string[]): number[] {
  const parts = new Set(
    names.flatMap((name) => name.split(/[\s-]+/u).map(bare)).filter(({ length }) => length >= SHORTEST),
  );
  return words.flatMap((word, index) => (parts.has(bare(word)) ? [index] : []));
}

/**
 * The same with the words by which somebody is addressed before their name: of "Hello Ines, look", "Hello" goes with "Ines".
 * @param named positions of the words that name somebody
 */
export function addressing(words: readonly string[], named: readonly number[]): number[] {
  const found = new Set(named);
  for (const position of named)
    for (let before = position - 1; before >= 0 && ADDRESS.has(bare(words[before]!)); before--) found.add(before);
  return [...found].sort((a, b) => a - b);
}
