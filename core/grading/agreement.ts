/** How far raters agree about the same units. */
export interface Agreement {
  /** Units that somebody has rated. */
  units: number;
  raters: number;
  /** Per cent of all pairs of ratings of one unit that are the same. */
  exact: number | null;
  /** Per cent that are the same or one apart. */
  adjacent: number | null;
  /** With quadratic weights; where there are more than two raters, the mean of all pairs of them. */
  kappa: number | null;
  /** For ordered ratings. */
  alpha: number | null;
}

/** A row for each unit, a column for each rater; null where one has not rated. */
export type Ratings = readonly (readonly (number | null)[])[];

/**
 * @param ratings whole numbers: the place of a level in its order
 */
export function agreementOf(ratings: Ratings): Agreement {
  const raters = Math.max(0, ...ratings.map((row) => row.length));
  const pairs = pairsOf(raters).map(([a, b]) => ratedByBoth(ratings, a, b));
  const apart = pairs.flat().map(([a, b]) => Math.abs(a - b));
  const within = (most: number): number | null =>
    apart.length === 0 ? null : (100 * apart.filter((distance) => distance <= most).length) / apart.length;
  const kappas = pairs.map(weightedKappa).filter((kappa) => kappa !== null);
  return {
    units: ratings.filter((row) => row.some((rating) => rating !== null)).length,
    raters,
    exact: within(0),
    adjacent: within(1),
    kappa: kappas.length === 0 ? null : kappas.reduce((sum, kappa) => sum + kappa, 0) / kappas.length,
    alpha: ordinalAlpha(ratings),
  };
}

const pairsOf = (raters: number): [number, number][] =>
  Array.from({ length: raters }, (_, a) =>
    Array.from({ length: raters - a - 1 }, (_, b): [number, number] => [a, a + b + 1]),
  ).flat();

const ratedByBoth = (ratings: Ratings, a: number, b: number): [number, number][] =>
  ratings.flatMap((row): [number, number][] => {
    const [one, other] = [row[a] ?? null, row[b] ?? null];
    return one === null || other === null ? [] : [[one, other]];
  });

/**
 * Cohen's kappa, where a disagreement weighs as the square of its distance.
 * J. Cohen, "Weighted kappa", Psychological Bulletin 70 (1968).
 * @returns null where there are no pairs, or nothing could have differed
 */
export function weightedKappa(pairs: readonly (readonly [number, number])[]): number | null {
  let [observed, expected] = [0, 0];
  for (const [a] of pairs) for (const [, b] of pairs) expected += (a - b) ** 2;
  for (const [a, b] of pairs) observed += (a - b) ** 2;
  return expected === 0 ? null : 1 - (observed * pairs.length) / expected;
}

/**
 * Krippendorff's alpha for ordered ratings, also where some are missing.
 * K. Krippendorff, "Computing Krippendorff's Alpha-Reliability" (2011), section E.
 * @returns null where no unit was rated twice, or nothing could have differed
 */
export function ordinalAlpha(ratings: Ratings): number | null {
  const units = ratings.map((row) => row.filter((rating) => rating !== null)).filter((row) => row.length > 1);
  const counts = new Map<number, number>();
  for (const rating of units.flat()) counts.set(rating, (counts.get(rating) ?? 0) + 1);
  const values = [...counts.keys()].sort((a, b) => a - b);
  const total = units.flat().length;

  /** How many ratings lie up to the middle of a value: a distance is that between two middles. */
  const middles = new Map<number, number>();
  let below = 0;
  for (const value of values) {
    middles.set(value, below + counts.get(value)! / 2);
    below += counts.get(value)!;
  }
  const distance = (a: number, b: number): number => (middles.get(a)! - middles.get(b)!) ** 2;

  let [observed, expected] = [0, 0];
  for (const row of units) {
    let own = 0;
    for (const a of row) for (const b of row) own += distance(a, b);
    observed += own / (row.length - 1);
  }
  for (const a of values) for (const b of values) expected += counts.get(a)! * counts.get(b)! * distance(a, b);
  return expected === 0 ? null : 1 - ((total - 1) * observed) / expected;
}
