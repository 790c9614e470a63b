import { spoken, tokens } from './token.ts';
import { vocabulary } from './spelling.ts';

/** Words of fewer letters are known to every recogniser. */
const SHORTEST = 6;

/**
 * What a recogniser should expect to hear about a work: names and words that are written in a way of their own first, then the
 * longest words, since the longer a word is the rarer it is (Zipf's law of abbreviation; from memory).
 */
export function hints(names: readonly string[], text: string, most: number): string[] {
  const own = [...vocabulary(names, text).values()];
  const words = tokens(text)
    .map((token) => spoken(token.text))
    .filter((word) => word.length >= SHORTEST && !/\d/u.test(word))
    .sort((a, b) => b.length - a.length);
  const seen = new Set<string>();
  return [...own, ...words]
    .filter((word) => {
      const key = word.toLowerCase();
      return !seen.has(key) && seen.add(key);
    })
    .slice(0, most);
}
