import { describe, expect, it } from 'vitest';
import { changedWords, paired } from './index.ts';

/** Words of which some are frequent and many stand only once, as in speech. */
function talk(length: number, seed: number): string[] {
  let state = seed;
  return Array.from({ length }, () => {
    state = (state * 48_271) % 2_147_483_647;
    return `w${Math.floor(1 / (state / 2_147_483_647) ** 1.3)}`;
  });
}

describe('changedWords', () => {
  const before = talk(3000, 7);
  const after = [...before.slice(0, 400), 'other', ...before.slice(401, 1200), ...before.slice(1240), 'more', 'words'];

  it('pairs short lists in the cheapest way', () => {
    const [from, to] = [before.slice(0, 150), talk(120, 11)];
    expect(changedWords(from, to)).toEqual(paired(from, to));
  });

  it('goes through both long lists in order, once each', () => {
    for (const to of [after, talk(2500, 3), [], before]) {
      const pairs = changedWords(before, to);
      const [left, right] = [pairs.flatMap(([i]) => i ?? []), pairs.flatMap(([, j]) => j ?? [])];
      expect(left).toEqual([...left].sort((a, b) => a - b));
      expect(new Set(left).size).toBe(left.length);
      expect(right).toEqual([...right].sort((a, b) => a - b));
      expect(new Set(right).size).toBe(right.length);
    }
  });

  it('finds what stayed, and what took the place of what', () => {
    const of = new Map(changedWords(before, after).map(([i, j]) => [j, i]));
    expect([of.get(10), of.get(400), of.get(500), of.get(1300), of.get(2900)]).toEqual([10, 400, 500, 1340, 2940]);
    expect(of.get(after.length - 1)).toBeUndefined();
  });

  it('pairs nothing of two long stretches that have no word in common', () => {
    const other = before.map((word) => `x${word}`);
    expect(changedWords(before, other)).toEqual([]);
  });
});
