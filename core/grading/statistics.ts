/** What some numbers have in common. */
export interface Statistics {
  n: number;
  /** Null where there are no numbers. */
  mean: number | null;
  median: number | null;
  q1: number | null;
  q3: number | null;
  /** Of a sample, divided by n − 1; null where there are fewer than two. */
  sd: number | null;
  min: number | null;
  max: number | null;
}

/**
 * A quantile of numbers in ascending order, between two of them by their distance.
 * Hyndman & Fan, "Sample Quantiles in Statistical Packages", The American Statistician 50 (1996), definition 7.
 * @param share 0 to 1
 * @returns null where there are no numbers
 */
export function quantile(ascending: readonly number[], share: number): number | null {
  if (ascending.length === 0) return null;
  const place = (ascending.length - 1) * share;
  const below = Math.floor(place);
  const low = ascending[below]!;
  return low + (place - below) * ((ascending[below + 1] ?? low) - low);
}

/** @param numbers finite, in any order */
export function statisticsOf(numbers: readonly number[]): Statistics {
  const ascending = numbers.toSorted((a, b) => a - b);
  const n = ascending.length;
  const mean = n === 0 ? null : meanOf(ascending);
  return {
    ...{ n, mean },
    median: quantile(ascending, 0.5),
    q1: quantile(ascending, 0.25),
    q3: quantile(ascending, 0.75),
    sd: mean === null || n < 2 ? null : Math.sqrt(ascending.reduce((all, one) => all + (one - mean) ** 2, 0) / (n - 1)),
    min: ascending[0] ?? null,
    max: ascending.at(-1) ?? null,
  };
}

/** Once more over what is left after a first mean, so that large numbers lose nothing. */
function meanOf(numbers: readonly number[]): number {
  const first = numbers.reduce((all, one) => all + one, 0) / numbers.length;
  return first + numbers.reduce((all, one) => all + (one - first), 0) / numbers.length;
}
