import * as d3 from 'd3-array';
import fc from 'fast-check';
import * as simple from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { quantile, rankTrend, statisticsOf } from './index.ts';

const numbers = fc.array(fc.double({ min: -1e6, max: 1e6, noNaN: true }), { minLength: 2, maxLength: 200 });

describe('statistics', () => {
  it('are those of two general-purpose libraries (property; d3-array, simple-statistics)', () => {
    fc.assert(
      fc.property(numbers, (some) => {
        const { mean, median, q1, q3, sd, min, max, n } = statisticsOf(some);
        expect(n).toBe(some.length);
        expect(mean!).toBeCloseTo(simple.mean(some), 6);
        expect(median!).toBeCloseTo(d3.median(some)!, 6);
        // d3-array: "the R-7 method", which is Hyndman & Fan's definition 7.
        expect(q1!).toBeCloseTo(d3.quantile(some, 0.25)!, 6);
        expect(q3!).toBeCloseTo(d3.quantile(some, 0.75)!, 6);
        expect(sd!).toBeCloseTo(simple.sampleStandardDeviation(some), 4);
        expect(sd!).toBeCloseTo(d3.deviation(some)!, 4);
        expect([min, max]).toEqual([Math.min(...some), Math.max(...some)]);
      }),
    );
  });

  it('lie between two numbers by their distance', () => {
    expect(statisticsOf([1, 2, 3, 4])).toMatchObject({ q1: 1.75, median: 2.5, q3: 3.25 });
    expect(quantile([10], 0.3)).toBe(10);
  });

  it('lose nothing where numbers are large and alike', () => {
    const some = [1e9 + 4, 1e9 + 7, 1e9 + 13, 1e9 + 16];
    expect(statisticsOf(some)).toMatchObject({ mean: 1e9 + 10, sd: Math.sqrt(30) });
  });

  it('say where there are none', () => {
    expect(statisticsOf([])).toEqual({
      n: 0,
      mean: null,
      median: null,
      q1: null,
      q3: null,
      sd: null,
      min: null,
      max: null,
    });
    expect(statisticsOf([7])).toMatchObject({ n: 1, mean: 7, median: 7, q1: 7, sd: null });
  });
});

describe('a trend', () => {
  it('is as likely by chance as tables of Kendall’s tau say', () => {
    // Kendall (1970), appendix table 1, one-sided, from memory: n = 5: S ≥ 8 0.042, S ≥ 10 0.0083; n = 10: S ≥ 21 0.036.
    const withScore = (n: number, s: number): number[] => {
      const order = Array.from({ length: n }, (_, index) => index);
      // Each exchange of neighbours takes 2.
      for (let left = (n * (n - 1)) / 4 - s / 2, round = 0; left > 0; round++)
        for (let at = 0; at + 1 < n - round && left > 0; at++, left--)
          [order[at], order[at + 1]] = [order[at + 1]!, order[at]!];
      return order;
    };
    expect(rankTrend(withScore(5, 10))!.p / 2).toBeCloseTo(0.0083, 4);
    expect(rankTrend(withScore(5, 8))!.p / 2).toBeCloseTo(0.042, 3);
    expect(rankTrend(withScore(10, 21))!.p / 2).toBeCloseTo(0.036, 3);
    expect(rankTrend([3, 3, 3, 3])).toMatchObject({ p: 1, tau: 0, slope: 0 });
  });

  it('counted out in all orders, and by their inversions, comes to the same (property)', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer(), { minLength: 3, maxLength: 6 }), (numbers) => {
        const orders = permutations(numbers);
        const score = (order: readonly number[]): number =>
          order.reduce(
            (sum, one, at) => sum + order.slice(at + 1).reduce((all, next) => all + Math.sign(next - one), 0),
            0,
          );
        const far = orders.filter((order) => Math.abs(score(order)) >= Math.abs(score(numbers))).length;
        expect(rankTrend(numbers)!.p).toBeCloseTo(far / orders.length, 9);
      }),
      { numRuns: 40 },
    );
  });

  it('is as strong as simple-statistics says of ranks, where it is perfect', () => {
    const places = [0, 1, 2, 3, 4, 5];
    expect(rankTrend([5, 7, 8, 11, 20, 21])!.tau).toBe(simple.sampleRankCorrelation(places, [5, 7, 8, 11, 20, 21]));
    expect(rankTrend([21, 20, 11, 8, 7, 5])!.tau).toBe(-1);
  });

  it('has a slope that an outlier does not move, and an interval around it', () => {
    const { slope, interval } = rankTrend([10, 12, 14, 16, 99, 20, 22, 24, 26, 28])!;
    expect(slope).toBeCloseTo(2, 9);
    expect(interval[0]).toBeLessThanOrEqual(2);
    expect(interval[1]).toBeGreaterThanOrEqual(2);
  });
});

const permutations = (all: readonly number[]): number[][] =>
  all.length < 2
    ? [[...all]]
    : all.flatMap((one, at) => permutations(all.toSpliced(at, 1)).map((rest) => [one, ...rest]));
