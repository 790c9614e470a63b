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
 * is left.
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
  const left = new Map(works.map((work) => [work.id, work]));
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
