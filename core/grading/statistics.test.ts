import * as d3 from 'd3-array';
import fc from 'fast-check';
import * as simple from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { quantile, statisticsOf, trendOf } from './index.ts';

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
  it('is the line of least squares (property; simple-statistics)', () => {
    const points = fc.array(fc.tuple(fc.integer({ min: -50, max: 50 }), fc.integer({ min: -50, max: 50 })), {
      minLength: 3,
      maxLength: 40,
    });
    fc.assert(
      fc.property(points, (some) => {
        const trend = trendOf(some);
        if (new Set(some.map(([x]) => x)).size === 1) {
          expect(trend).toBeUndefined();
          return;
        }
        const { m, b } = simple.linearRegression(some);
        expect(trend!.slope).toBeCloseTo(m, 6);
        expect(trend!.start).toBeCloseTo(b, 6);
        if (new Set(some.map(([, y]) => y)).size > 1)
          expect(trend!.r2).toBeCloseTo(simple.rSquared(some, simple.linearRegressionLine({ m, b })), 6);
      }),
    );
  });

  it('needs three points', () =>
    expect(
      trendOf([
        [1, 1],
        [2, 2],
      ]),
    ).toBeUndefined());
});
