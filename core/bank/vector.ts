import { rarity } from './bm25.ts';

/** A sparse vector. */
export type Vector = ReadonlyMap<string, number>;

export function cosine(a: Vector, b: Vector): number {
  const [small, large] = a.size < b.size ? [a, b] : [b, a];
  let product = 0;
  for (const [name, value] of small) product += value * (large.get(name) ?? 0);
  return product === 0 ? 0 : product / (lengthOf(a) * lengthOf(b));
}

function lengthOf(vector: Vector): number {
  let sum = 0;
  for (const value of vector.values()) sum += value * value;
  return Math.sqrt(sum);
}

/** The same direction with a given length; what is empty stays so. */
export function scaled(vector: Vector, length: number): Vector {
  const factor = vector.size === 0 ? 0 : length / (lengthOf(vector) || 1);
  return new Map([...vector].map(([name, value]) => [name, value * factor]));
}

export function sum(vectors: readonly Vector[]): Vector {
  const total = new Map<string, number>();
  for (const vector of vectors) for (const [name, value] of vector) total.set(name, (total.get(name) ?? 0) + value);
  return total;
}

export const counted = (names: Iterable<string>): Map<string, number> => {
  const counts = new Map<string, number>();
  for (const name of names) counts.set(name, (counts.get(name) ?? 0) + 1);
  return counts;
};

/** In how many of several texts each term is. */
export interface Spread {
  documents: number;
  having: ReadonlyMap<string, number>;
}

export const spreadOf = (documents: readonly (readonly string[])[]): Spread => ({
  documents: documents.length,
  having: counted(documents.flatMap((terms) => [...new Set(terms)])),
});

/** Terms weighted by how rare they are; the same one again counts less (G. Salton, C. Buckley, 1988: log tf · idf). */
export const weighted = (terms: readonly string[], { documents, having }: Spread): Vector =>
  new Map(
    [...counted(terms)].map(([term, count]) => [
      term,
      (1 + Math.log(count)) * rarity(documents, having.get(term) ?? 0),
    ]),
  );
