import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Criterion, Scores } from '#core/grading';
import {
  agreementByCriterion,
  differing,
  ratingOf,
  sampleOf,
  seededRandom,
  unscored,
  type ScoredWork,
} from './index.ts';

const works = (...percentages: number[]): ScoredWork[] =>
  percentages.map((percentage) => ({ id: `at ${percentage}`, percentage: percentage * 100 }));
const always = (): number => 0.5;

describe('a sample', () => {
  it('takes those nearest to a border of grades', () => {
    const taken = sampleOf(works(90, 71, 50, 69, 52), { random: 0, borders: 3, extremes: 0 }, [7000, 4900], always);
    expect(taken.map(({ id }) => id).sort()).toEqual(['at 50', 'at 69', 'at 71']);
    expect(new Set(taken.map(({ reason }) => reason))).toEqual(new Set(['border']));
  });

  it('takes from both ends, one more from above where the number is odd', () => {
    expect(sampleOf(works(40, 90, 70, 20), { random: 0, borders: 0, extremes: 3 }, [], always)).toEqual([
      { id: 'at 90', reason: 'highest' },
      { id: 'at 70', reason: 'highest' },
      { id: 'at 20', reason: 'lowest' },
    ]);
  });

  it('chooses by chance among those that are alike, and the same again with the same seed', () => {
    const alike = ['a', 'b', 'c', 'd'].map((id) => ({ id, percentage: 6900 }));
    for (const wanted of [
      { random: 0, borders: 1, extremes: 0 },
      { random: 0, borders: 0, extremes: 1 },
    ]) {
      const draw = (seed: string, pool = alike): string =>
        sampleOf(pool, wanted, [7000], seededRandom(seed))
          .map(({ id }) => id)
          .join();
      const times = new Map<string, number>();
      for (let n = 0; n < 2000; n++) times.set(draw(`seed ${n}`), (times.get(draw(`seed ${n}`)) ?? 0) + 1);
      // 500 wanted of each; the standard deviation is √(2000 · 1/4 · 3/4) ≈ 19.4.
      for (const count of times.values()) expect(Math.abs(count - 500)).toBeLessThan(4 * 19.4);
      expect(times.size).toBe(4);
      // In whatever order they come.
      expect(draw('k3x9', alike.toReversed())).toBe(draw('k3x9'));
    }
  });

  it('takes each work as often as any other by chance', () => {
    // The linear congruence of D. E. Knuth's MMIX, from memory; any fair source would do.
    let state = 7n;
    const random = (): number => {
      state = (state * 6364136223846793005n + 1442695040888963407n) % 2n ** 64n;
      return Number(state >> 11n) / 2 ** 53;
    };
    const taken = new Map<string, number>();
    for (let time = 0; time < 6000; time++)
      for (const { id } of sampleOf(works(1, 2, 3, 4, 5, 6), { random: 2, borders: 0, extremes: 0 }, [], random))
        taken.set(id, (taken.get(id) ?? 0) + 1);
    // 2000 wanted of each; the standard deviation is √(6000 · 1/3 · 2/3) ≈ 36.5.
    for (const times of taken.values()) expect(Math.abs(times - 2000)).toBeLessThan(4 * 36.5);
    expect(taken.size).toBe(6);
  });

  it('has no work twice, and as many as there are, whatever is wanted', () => {
    const few = fc.nat({ max: 12 });
    fc.assert(
      fc.property(
        fc.array(fc.nat({ max: 100 }), { maxLength: 20 }),
        fc.record({ random: few, borders: few, extremes: few }),
        fc.array(fc.nat({ max: 10000 }), { maxLength: 3 }),
        (percentages, wanted, borders) => {
          const all = percentages.map((percentage, at) => ({ id: `${at}`, percentage: percentage * 100 }));
          const taken = sampleOf(all, wanted, borders, () => 0.5);
          expect(new Set(taken.map(({ id }) => id)).size).toBe(taken.length);
          const asked = wanted.random + wanted.extremes + (borders.length > 0 ? wanted.borders : 0);
          expect(taken.length).toBe(Math.min(asked, all.length));
        },
      ),
    );
  });
});

const criterion: Criterion = {
  ...{ id: 'c', title: 'Evidence', description: '' },
  levels: [
    { id: 'full', title: 'Full', description: '', points: 400 },
    { id: 'some', title: 'Some', description: '', points: 200 },
    { id: 'none', title: 'None', description: '', points: 0 },
  ],
};
const scores = (...levels: (string | null)[]): Scores[] =>
  levels.map((level): Scores => (level === null ? { c: { notAssessed: true } } : { c: { level } }));

describe('two scores of one work', () => {
  it('are rated by the order of levels, typed points by the level next to them', () => {
    expect(['none', 'some', 'full'].map((level) => ratingOf(criterion, { level }))).toEqual([0, 1, 2]);
    expect([0, 99, 100, 101, 350].map((points) => ratingOf(criterion, { points }))).toEqual([0, 0, 0, 1, 2]);
    expect(
      [undefined, { notAssessed: true } as const, { level: 'gone' }].map((one) => ratingOf(criterion, one)),
    ).toEqual([null, null, null]);
  });

  it('agree as the measures of agreement say, and tell who is stricter', () => {
    const firsts = scores('full', 'some', 'none', 'some', null);
    const seconds = scores('some', 'some', 'none', 'none', 'full');
    const [found] = agreementByCriterion(
      [criterion],
      firsts.map((first, at) => ({ first, second: seconds[at]! })),
    );
    // By hand: four pairs (2,1) (1,1) (0,0) (1,0); Σ observed = 2, Σ over all 16 pairs of margins = 16, κ = 1 − 2·4/16.
    expect(found).toMatchObject({ criterion: 'c', exact: 50, adjacent: 100, shift: -0.5 });
    expect(found!.kappa).toBeCloseTo(0.5, 12);
  });

  it('differ where they are not the same, and lack what nobody has scored', () => {
    const [full, some, out] = scores('full', 'some', null);
    expect(differing([criterion], { first: full!, second: full! })).toEqual([]);
    expect(differing([criterion], { first: full!, second: some! })).toEqual(['c']);
    expect([unscored([criterion], {}), unscored([criterion], out!)]).toEqual([['c'], []]);
  });
});
