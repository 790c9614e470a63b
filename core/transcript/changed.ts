import { alignWords } from '#core/anchor';
import { paired, type Pairing } from './error-rate.ts';

/** The largest table that is filled while somebody types. */
const MOST_CELLS = 40_000;

/**
 * How a list of words became another that is mostly the same, in a time that hardly grows with what stayed: words that stayed
 * first, then what was put in the place of what between them. Of two long stretches without a word in common nothing is paired.
 */
export function changedWords(from: readonly string[], to: readonly string[]): Pairing {
  if (from.length * to.length <= MOST_CELLS) return paired(from, to);
  const pairs: Pairing = [];
  let [i, j] = [0, 0];
  for (const [old, now] of [...stayed(from, to), [from.length, to.length] as const]) {
    const [gone, come] = [from.slice(i, old), to.slice(j, now)];
    const between = gone.length * come.length <= MOST_CELLS ? paired(gone, come) : [];
    for (const [a, b] of between) pairs.push([a === undefined ? a : i + a, b === undefined ? b : j + b]);
    if (old < from.length) pairs.push([old, now]);
    [i, j] = [old + 1, now + 1];
  }
  return pairs;
}

function stayed(from: readonly string[], to: readonly string[]): [number, number][] {
  const ids = new Map<string, number>();
  const idOf = (word: string): number => {
    if (!ids.has(word)) ids.set(word, ids.size);
    return ids.get(word)!;
  };
  const [old, now] = [Int32Array.from(from, idOf), Int32Array.from(to, idOf)];
  return alignWords([...from.keys()], [...to.keys()], old, now, new Float32Array(from.length).fill(1));
}
