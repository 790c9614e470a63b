import { spoken, tokens } from './token.ts';

export interface WordErrors {
  substitutions: number;
  deletions: number;
  insertions: number;
  /** Words of the reference. */
  words: number;
  /** Errors over words of the reference; above 1 where more was made up than was said. Null where nothing was to be said. */
  rate: number | null;
}

/** How one list of words became another: pairs of positions, undefined on one side where a word was left out or put in. */
export type Pairing = [reference: number | undefined, hypothesis: number | undefined][];

/**
 * Word error rate: (S + D + I) / N over the cheapest alignment, as in NIST's SCLITE. Words are compared in lower case and
 * without punctuation.
 */
export function wordErrors(reference: string, hypothesis: string): WordErrors {
  const [said, heard] = [reference, hypothesis].map((text) =>
    tokens(text)
      .map(({ text }) => spoken(text))
      .filter((word) => word !== ''),
  ) as [string[], string[]];
  const counts = { substitutions: 0, deletions: 0, insertions: 0 };
  for (const [i, j] of paired(said, heard)) {
    if (j === undefined) counts.deletions++;
    else if (i === undefined) counts.insertions++;
    else if (said[i] !== heard[j]) counts.substitutions++;
  }
  const errors = counts.substitutions + counts.deletions + counts.insertions;
  return { ...counts, words: said.length, rate: said.length === 0 ? null : errors / said.length };
}

/** What a change costs: as in SCLITE, two errors that explain more words are not cheaper than they are worth. */
const SUBSTITUTED = 4;
const LEFT_OUT = 3;

/** The cheapest way from one list to the other (Levenshtein 1966, with the weights of NIST's SCLITE). */
export function paired(from: readonly string[], to: readonly string[]): Pairing {
  const width = to.length + 1;
  const cost = new Uint32Array((from.length + 1) * width);
  const changed = (i: number, j: number): number => (from[i - 1] === to[j - 1] ? 0 : SUBSTITUTED);
  for (let j = 1; j < width; j++) cost[j] = j * LEFT_OUT;
  for (let i = 1; i <= from.length; i++) {
    cost[i * width] = i * LEFT_OUT;
    for (let j = 1; j < width; j++)
      cost[i * width + j] = Math.min(
        cost[(i - 1) * width + j - 1]! + changed(i, j),
        cost[(i - 1) * width + j]! + LEFT_OUT,
        cost[i * width + j - 1]! + LEFT_OUT,
      );
  }
  const pairs: Pairing = [];
  for (let i = from.length, j = to.length; i > 0 || j > 0;) {
    const here = cost[i * width + j]!;
    if (i > 0 && j > 0 && here === cost[(i - 1) * width + j - 1]! + changed(i, j)) pairs.push([--i, --j]);
    else if (i > 0 && here === cost[(i - 1) * width + j]! + LEFT_OUT) pairs.push([--i, undefined]);
    else pairs.push([undefined, --j]);
  }
  return pairs.reverse();
}
