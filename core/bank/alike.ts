import { frequentWords } from './frequent-words.ts';
import { termsOf } from './terms.ts';
import { cosine, spreadOf, weighted, type Vector } from './vector.ts';

/** From here on two texts are asked about: measured on dictation with one word in five heard wrongly. */
export const ALIKE = 0.43;

/** A few texts do not tell which words are rare: as if so many others had been looked at, which have none of their words. */
const OTHERS = 100;

export interface Worded {
  text: string;
  /** BCP 47. */
  language: string;
}

/** What a text is compared by: the stems of its words without those that any text is full of. */
export function stemsToCompare({ text, language }: Worded): string[] {
  const leftOut = frequentWords(language);
  const stems = termsOf(text, language).filter(({ surface }) => !leftOut.has(surface));
  return stems.map(({ stem }) => stem);
}

/**
 * How alike two texts are: the cosine of their stems, weighted by rarity among all that are compared.
 * @returns a function of two positions, from 0 to 1
 */
export function likeness(texts: readonly Worded[]): (a: number, b: number) => number {
  const vectors = vectorsOf(texts);
  return (a, b) => cosine(vectors[a]!, vectors[b]!);
}

function vectorsOf(texts: readonly Worded[]): Vector[] {
  const stems = texts.map(stemsToCompare);
  const { documents, having } = spreadOf(stems);
  const spread = { documents: documents + OTHERS, having };
  return stems.map((own) => weighted(own, spread));
}

/**
 * Which texts say nearly the same: the words of one may have been heard wrongly.
 * @returns groups of positions, each of two or more and in order; every one in a group is alike the middle of the others
 */
export function alikeGroups(texts: readonly Worded[], threshold = ALIKE): number[][] {
  const vectors = vectorsOf(texts);
  const pairs: { a: number; b: number; value: number }[] = [];
  for (const [a, b] of candidates(vectors)) {
    const value = cosine(vectors[a]!, vectors[b]!);
    if (value >= threshold) pairs.push({ a, b, value });
  }
  pairs.sort((x, y) => y.value - x.value || x.a - y.a || x.b - y.b);
  return merged(texts.length, pairs);
}

/** Pairs that share a term: all others are not alike at all. */
function candidates(vectors: readonly Vector[]): [number, number][] {
  const having = new Map<string, number[]>();
  const seen = new Set<number>();
  const found: [number, number][] = [];
  vectors.forEach((vector, b) => {
    seen.clear();
    for (const term of vector.keys()) {
      const others = having.get(term) ?? [];
      for (const a of others) {
        if (!seen.has(a)) found.push([a, b]);
        seen.add(a);
      }
      having.set(term, [...others, b]);
    }
  });
  return found;
}

/** Joins the likest first, as long as half of the pairs between two groups are alike: one pair alone does not join two. */
function merged(count: number, pairs: readonly { a: number; b: number }[]): number[][] {
  const alike = new Set(pairs.map(({ a, b }) => a * count + b));
  const groups = Array.from({ length: count }, (_, index) => [index]);
  for (const { a, b } of pairs) {
    const [one, other] = [groups[a]!, groups[b]!];
    if (one === other) continue;
    const between = one.flatMap((x) => other.map((y) => (x < y ? x * count + y : y * count + x)));
    if (between.filter((pair) => alike.has(pair)).length * 2 < between.length) continue;
    one.push(...other);
    for (const index of other) groups[index] = one;
  }
  return [...new Set(groups)].filter(({ length }) => length > 1).map((group) => group.sort((x, y) => x - y));
}
