import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { agreementOf, ordinalAlpha, weightedKappa, type Ratings } from './index.ts';

const columns = (...raters: (number | null)[][]): Ratings =>
  raters[0]!.map((_, unit) => raters.map((own) => own[unit]!));
const O = null;

/** K. Krippendorff, "Computing Krippendorff's Alpha-Reliability" (2011), section C: four observers, twelve units. */
const KRIPPENDORFF = columns(
  [1, 2, 3, 3, 2, 1, 4, 1, 2, O, O, O],
  [1, 2, 3, 3, 2, 2, 4, 1, 2, 5, O, 3],
  [O, 3, 3, 3, 2, 3, 4, 2, 2, 5, 1, O],
  [1, 2, 3, 3, 2, 4, 4, 1, 2, 5, 1, O],
);

describe('Krippendorff’s alpha', () => {
  it('of his own example, ordinal, is 0.815', () => {
    expect(ordinalAlpha(KRIPPENDORFF)).toBeCloseTo(0.815, 3);
  });

  it('is 1 where all agree, and nothing where nothing could differ', () => {
    expect(
      ordinalAlpha([
        [1, 1],
        [2, 2],
        [3, 3],
      ]),
    ).toBe(1);
    expect(
      ordinalAlpha([
        [2, 2],
        [2, 2],
      ]),
    ).toBeNull();
    expect(
      ordinalAlpha([
        [1, O],
        [O, 2],
      ]),
    ).toBeNull();
  });

  it('knows the order only, not how far values lie apart (property)', () => {
    const ratings = fc.array(fc.array(fc.option(fc.integer({ min: 0, max: 5 })), { minLength: 3, maxLength: 3 }), {
      minLength: 2,
    });
    fc.assert(
      fc.property(ratings, (some) => {
        const stretched = some.map((row) => row.map((one) => one && one ** 3 + 1 - (one === 0 ? 1 : 0)));
        const alpha = ordinalAlpha(some);
        if (alpha === null) expect(ordinalAlpha(stretched)).toBeNull();
        else expect(ordinalAlpha(stretched)).toBeCloseTo(alpha, 9);
      }),
    );
  });
});

describe('Cohen’s kappa with quadratic weights', () => {
  /** Each cell of a table of counts as so many pairs. */
  const pairsOf = (table: number[][]): [number, number][] =>
    table.flatMap((row, a) => row.flatMap((count, b) => Array.from({ length: count }, (): [number, number] => [a, b])));

  it('of a published example is 0.297', () => {
    // Two raters of the anxiety of twenty people: the data set and the result that the manual of the R package irr gives (from memory).
    const one = [3, 3, 3, 4, 5, 5, 2, 3, 5, 2, 2, 6, 1, 5, 2, 2, 1, 2, 4, 3];
    const other = [3, 6, 4, 6, 2, 4, 2, 4, 3, 3, 2, 3, 3, 3, 2, 2, 1, 3, 3, 4];
    expect(weightedKappa(one.map((rating, unit) => [rating, other[unit]!]))).toBeCloseTo(0.297, 3);
  });

  it('is the intraclass correlation where both use the scale alike (Fleiss & Cohen 1973)', () => {
    // "The equivalence of weighted kappa and the intraclass correlation coefficient as measures of reliability",
    // Educational and Psychological Measurement 33: with equal means and variances it is Pearson's correlation.
    const pairs = pairsOf([
      [5, 2, 1],
      [2, 6, 2],
      [1, 2, 5],
    ]);
    const mean = (side: 0 | 1): number => pairs.reduce((sum, pair) => sum + pair[side], 0) / pairs.length;
    const [x, y] = [mean(0), mean(1)];
    const cov = pairs.reduce((sum, [a, b]) => sum + (a - x) * (b - y), 0);
    const va = pairs.reduce((sum, [a]) => sum + (a - x) ** 2, 0);
    expect(weightedKappa(pairs)).toBeCloseTo(cov / va, 12);
  });

  it('is the same as by the tables of weights of Cohen 1968 (property)', () => {
    const rating = fc.integer({ min: 0, max: 4 });
    fc.assert(
      fc.property(fc.array(fc.tuple(rating, rating), { minLength: 1, maxLength: 60 }), (pairs) => {
        const n = pairs.length;
        const share = (side: 0 | 1, value: number): number => pairs.filter((pair) => pair[side] === value).length / n;
        let [seen, chance] = [0, 0];
        for (let a = 0; a < 5; a++)
          for (let b = 0; b < 5; b++) {
            const weight = 1 - ((a - b) / 4) ** 2;
            seen += (weight * pairs.filter(([x, y]) => x === a && y === b).length) / n;
            chance += weight * share(0, a) * share(1, b);
          }
        const kappa = weightedKappa(pairs);
        if (kappa === null) expect(chance).toBeCloseTo(1, 12);
        else expect(kappa).toBeCloseTo((seen - chance) / (1 - chance), 9);
      }),
    );
  });
});

describe('agreement', () => {
  it('counts what is the same and what is at most one apart', () => {
    expect(agreementOf(columns([1, 2, 3, 4, 4], [1, 3, 1, O, 4]))).toMatchObject({
      ...{ units: 5, raters: 2, exact: 50, adjacent: 75 },
    });
  });

  it('of more than two raters is that of all pairs of them', () => {
    expect(agreementOf(KRIPPENDORFF)).toMatchObject({ units: 12, raters: 4 });
    const three = columns([1, 2, 3], [1, 2, 3], [3, 2, 1]);
    expect(agreementOf(three).kappa).toBeCloseTo((1 - 1 - 1) / 3, 12);
    expect(agreementOf(three).exact).toBeCloseTo((100 * 5) / 9, 12);
  });

  it('is nothing where nobody has rated', () => {
    expect(agreementOf([])).toEqual({ units: 0, raters: 0, exact: null, adjacent: null, kappa: null, alpha: null });
  });
});
