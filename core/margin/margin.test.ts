import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isotonicRegression, layoutRibbons } from './index.ts';

/**
 * The optimum by the max-min formula of isotonic regression (Barlow et al. 1972, theorem 1.4; from memory): at i, the
 * largest over all starts ≤ i of the smallest over all ends ≥ i of the mean between them. O(n³), and shares no step with pooling.
 */
function byMaxMin(values: number[]): number[] {
  const mean = (from: number, to: number): number =>
    values.slice(from, to + 1).reduce((sum, value) => sum + value, 0) / (to - from + 1);
  const range = (from: number, to: number): number[] => Array.from({ length: to - from + 1 }, (_, step) => from + step);
  const last = values.length - 1;
  return values.map((_, i) =>
    Math.max(...range(0, i).map((from) => Math.min(...range(i, last).map((to) => mean(from, to))))),
  );
}

/** The least cost over a grid of whole positions, by trying all. */
function leastCost(wanted: number[], most: number): number {
  const search = (index: number, low: number): number => {
    if (index === wanted.length) return 0;
    let best = Infinity;
    for (let value = low; value <= most; value++)
      best = Math.min(best, (value - wanted[index]!) ** 2 + search(index + 1, value));
    return best;
  };
  return search(0, 0);
}

const cost = (values: number[], wanted: number[]): number =>
  values.reduce((sum, value, index) => sum + (value - wanted[index]!) ** 2, 0);

describe('isotonicRegression', () => {
  it('pools violators to their mean', () => {
    expect(isotonicRegression([1, 3, 2, 2, 5])).toEqual([1, 7 / 3, 7 / 3, 7 / 3, 5]);
    expect(isotonicRegression([])).toEqual([]);
  });

  it('agrees with the max-min formula', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -50, max: 50 }), { maxLength: 12 }), (values) => {
        isotonicRegression(values).forEach((value, index) => expect(value).toBeCloseTo(byMaxMin(values)[index]!, 9));
      }),
    );
  });

  it('costs no more than the best that trying all finds', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 8 }), { minLength: 1, maxLength: 5 }), (wanted) => {
        expect(cost(isotonicRegression(wanted), wanted)).toBeLessThanOrEqual(leastCost(wanted, 8) + 1e-9);
      }),
    );
  });
});

describe('layoutRibbons', () => {
  const ribbons = fc
    .array(fc.record({ passage: fc.integer({ min: 0, max: 3000 }), height: fc.integer({ min: 20, max: 400 }) }), {
      minLength: 1,
      maxLength: 30,
    })
    .map((list) => list.sort((a, b) => a.passage - b.passage));

  it('leaves ribbons alone that have room', () => {
    expect(
      layoutRibbons(
        [
          { passage: 0, height: 40 },
          { passage: 100, height: 40 },
        ],
        { gap: 10 },
      ),
    ).toEqual([0, 100]);
  });

  it('never lets two overlap, and none stand above the top unless one is in focus', () => {
    fc.assert(
      fc.property(ribbons, fc.option(fc.nat(29), { nil: undefined }), (list, focused) => {
        const tops = layoutRibbons(list, { gap: 8, top: 4, focused });
        if (focused === undefined) expect(tops[0]).toBeGreaterThanOrEqual(4);
        for (let i = 1; i < list.length; i++)
          expect(tops[i]! - tops[i - 1]!).toBeGreaterThanOrEqual(list[i - 1]!.height + 8 - 1e-6);
      }),
    );
  });

  it('puts the focused one exactly at its passage, also where those before it must stand above the top', () => {
    fc.assert(
      fc.property(ribbons, fc.nat(29), (list, pick) => {
        const focused = pick % list.length;
        const tops = layoutRibbons(list, { gap: 8, focused });
        expect(tops[focused]).toBeCloseTo(list[focused]!.passage, 6);
        const above = list.slice(0, focused).reduce((sum, { height }) => sum + height + 8, 0);
        expect(tops[0]).toBeGreaterThanOrEqual(Math.min(0, list[focused]!.passage - above) - 1e-6);
      }),
    );
  });

  it('ignores a focus that is not there', () => {
    expect(layoutRibbons([{ passage: 5, height: 1 }], { gap: 1, focused: 7 })).toEqual([5]);
  });
});
