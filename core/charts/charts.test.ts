import { bin } from 'd3-array';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rankTrend } from '../grading/index.ts';
import {
  distribution,
  inOrder,
  isDrift,
  levelsAcross,
  markingSeconds,
  shareOf,
  trendWords,
  unheard,
  weakest,
} from './index.ts';

const work = (points: number | null, possible: number | null = 2000) => ({ points, possible });

describe('how results are spread', () => {
  it('is in ten steps; all of it and more is in the last one', () => {
    const { bins, statistics } = distribution([0, 199, 200, 1999, 2000, 2400, null].map((points) => work(points)));
    expect(bins.map(({ works }) => works.length)).toEqual([2, 1, 0, 0, 0, 0, 0, 0, 0, 3]);
    expect(statistics).toMatchObject({ n: 6, max: 120 });
  });

  it('is what a general-purpose library makes of it (property; d3-array)', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 1000 })), (points) => {
        const { bins } = distribution(points.map((one) => work(one, 1000)));
        const other = bin().domain([0, 100]).thresholds([10, 20, 30, 40, 50, 60, 70, 80, 90])(
          points.map((one) => shareOf(work(one, 1000))!),
        );
        expect(bins.map(({ works }) => works.length)).toEqual(other.map(({ length }) => length));
      }),
    );
  });

  it('leaves out what is out of nothing', () => expect(distribution([work(5, null), work(5, 0)]).statistics.n).toBe(0));
});

it('counts levels of each criterion, those of this rubric', () => {
  const levels = ['low', 'high'].map((id, index) => ({ id, title: id, description: '', points: index }));
  const rubric = [{ id: 'k', title: 'Clear', description: '', levels }];
  const works = [{ levels: { k: 'high' } }, { levels: { k: 'high' } }, { levels: { old: 'low' } }];
  expect(levelsAcross(rubric, works)[0]!.levels.map(({ title, works: some }) => [title, some.length])).toEqual([
    ['low', 0],
    ['high', 2],
  ]);
});

describe('the order of marking', () => {
  const judged = (share: number, minute: number) => ({
    ...work(share * 20),
    judgedAt: `2026-10-01T20:${String(minute).padStart(2, '0')}:00Z`,
  });

  it('is that of time, and says whether results went down', () => {
    const { works, trend } = inOrder([
      ...[judged(60, 30), judged(80, 0), judged(70, 20), judged(50, 40), judged(40, 50)],
      { ...work(null), judgedAt: null },
    ]);
    expect(works.map(({ share }) => share)).toEqual([80, 70, 60, 50, 40]);
    expect(trendWords(trend, works.length)).toMatch(
      /^From the first work to the last, results went down by about 40 percentage points \(95 % interval .*p = 0\.017\)\.$/u,
    );
  });

  it('sees none where there is none, or too little', () => {
    const even = inOrder([judged(70, 0), judged(90, 10), judged(90, 20), judged(70, 30)]);
    expect(trendWords(even.trend, 4)).toContain('No sign that marking became stricter');
    expect(trendWords(inOrder([judged(70, 0)]).trend, 1)).toContain('Too few');
  });
});

it.each([5, 8, 10, 20, 30])('claims a drift in no more than one random class of %s in twenty', (size) => {
  const random = xorshift(size);
  let claimed = 0;
  const CLASSES = 1000;
  for (let n = 0; n < CLASSES; n++) {
    // Results as they are: a few levels, so that many are alike.
    const shares = Array.from({ length: size }, () => Math.round((50 + 40 * random()) / 5) * 5);
    if (isDrift(rankTrend(shares), size)) claimed++;
  }
  expect(claimed / CLASSES).toBeLessThanOrEqual(0.05);
});

/** Numbers as by chance, and always the same: G. Marsaglia, "Xorshift RNGs" (2003). */
function xorshift(seed: number): () => number {
  let state = seed * 2654435761;
  return () => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    return (state >>> 0) / 2 ** 32;
  };
}

it('finds where most points were lost by points, whatever the order of the levels', () => {
  const level = (id: string, points: number) => ({ id, title: id, description: '', points });
  const best = { id: 'k', title: 'Clear', description: '', levels: [level('a', 500), level('b', 200), level('c', 0)] };
  const other = { ...best, id: 'o', title: 'Exact', levels: [level('x', 0), level('y', 300)] };
  const works = [{ levels: { k: 'a', o: 'x' } }, { levels: { k: 'a', o: 'x' } }, { levels: { k: 'b', o: 'y' } }];
  expect(weakest([best, other], works)).toEqual({ title: 'Exact', works: 2 });
  expect(weakest([best], [{ levels: { k: 'a' } }])).toBeUndefined();
});

it('counts as time of marking what is no long pause', () => {
  const at = (time: string): string => `2026-10-01T${time}Z`;
  expect(markingSeconds([at('20:00:00'), at('20:01:30'), at('21:00:00'), at('21:00:30')])).toBe(120);
  expect(markingSeconds([at('20:00:00')])).toBeUndefined();
});

it('finds who is told little, and who hears of repairs alone', () => {
  const student = (name: string, seconds: number, kinds: Record<string, number>, submission: string | null = 's') => ({
    ...{ name, seconds, kinds, submission },
  });
  const { little, onlyRepairs } = unheard(
    [
      student('a', 60, { strength: 2, repair: 1 }),
      student('b', 50, { repair: 3 }),
      student('c', 5, { strength: 1 }),
      student('d', 0, {}, null),
    ],
    'repair',
  );
  expect([little.map(({ name }) => name), onlyRepairs.map(({ name }) => name)]).toEqual([['c'], ['b']]);
});
