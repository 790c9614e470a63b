/** Why a work is in a sample. */
export type Reason = 'random' | 'border' | 'highest' | 'lowest';

/** A work that has been scored. */
export interface ScoredWork {
  id: string;
  /** Of the result, in hundredths of a per cent. */
  percentage: number;
}

/** How many works are wanted of each sort. */
export interface Wanted {
  random: number;
  borders: number;
  /** Of the highest and the lowest results together. */
  extremes: number;
}

export interface Sampled {
  id: string;
  reason: Reason;
}

/**
 * Chooses the works of a second marking; none twice. Borders and extremes are chosen first, so that chance only chooses among what
 * is left; where works are alike, chance chooses among them, and not their names.
 * @param borders where a grade ends and the next begins, in hundredths of a per cent
 * @param random gives numbers from 0 up to, but not including, 1
 * @returns fewer than wanted where there are no more
 */
export function sampleOf(
  works: readonly ScoredWork[],
  wanted: Wanted,
  borders: readonly number[],
  random: () => number,
): Sampled[] {
  const mixed = drawn(
    [...works].sort((a, b) => (a.id < b.id ? -1 : 1)),
    works.length,
    random,
  );
  const left = new Map(mixed.map((work) => [work.id, work]));
  const take = (some: readonly ScoredWork[], reason: Reason): Sampled[] =>
    some.map(({ id }) => {
      left.delete(id);
      return { id, reason };
    });
  const atBorders = take(nearest([...left.values()], borders).slice(0, wanted.borders), 'border');
  const ordered = [...left.values()].sort((a, b) => b.percentage - a.percentage);
  const extremes = Math.min(wanted.extremes, ordered.length);
  const highest = take(ordered.slice(0, Math.ceil(extremes / 2)), 'highest');
  const lowest = take(ordered.slice(ordered.length - Math.floor(extremes / 2)), 'lowest');
  return [...atBorders, ...highest, ...lowest, ...take(drawn([...left.values()], wanted.random, random), 'random')];
}

/** Those nearest to a border first. */
function nearest(works: readonly ScoredWork[], borders: readonly number[]): ScoredWork[] {
  if (borders.length === 0) return [];
  const distance = ({ percentage }: ScoredWork): number =>
    Math.min(...borders.map((border) => Math.abs(percentage - border)));
  return works.toSorted((a, b) => distance(a) - distance(b));
}

/**
 * So many, each as likely as any other.
 * R. A. Fisher and F. Yates, as given by D. E. Knuth, "The Art of Computer Programming" 2, 3.4.2, algorithm P; stopped early.
 */
function drawn<T>(all: T[], count: number, random: () => number): T[] {
  const most = Math.min(count, all.length);
  for (let at = 0; at < most; at++) {
    const other = at + Math.floor(random() * (all.length - at));
    [all[at], all[other]] = [all[other]!, all[at]!];
  }
  return all.slice(0, most);
}

/**
 * Numbers from 0 up to, but not including, 1, as by chance; the same for the same seed, so that a sample can be drawn again.
 * FNV-1a (G. Fowler, L. C. Noll, K.-P. Vo) makes 32 bits of the seed; SplitMix32 after G. L. Steele, D. Lea and C. H. Flood, "Fast
 * Splittable Pseudorandom Number Generators" (2014), makes numbers of them.
 */
export function seededRandom(seed: string): () => number {
  let state = 0x811c9dc5;
  for (const character of seed) state = Math.imul(state ^ character.codePointAt(0)!, 0x01000193);
  return () => {
    state = (state + 0x9e3779b9) | 0;
    let mixed = Math.imul(state ^ (state >>> 16), 0x21f0aaad);
    mixed = Math.imul(mixed ^ (mixed >>> 15), 0x735a2d97);
    return ((mixed ^ (mixed >>> 15)) >>> 0) / 2 ** 32;
  };
}
