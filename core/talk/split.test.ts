import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inventedTake, MANNERS, repeatable, type InventedTake } from './invented-take.ts';
import { splitTake, type TalkTake } from './split.ts';

const pause = (start: number, end: number) => ({ start, end });
const at = (...times: number[]) => times.map((time) => ({ at: time }));

interface Judged {
  doubt: number;
  right: boolean;
}

/** 40 takes of each manner, split by what is known of them. */
function judged(known: (take: InventedTake) => TalkTake, seed = 11): Judged[] {
  const random = repeatable(seed);
  return Object.values(MANNERS).flatMap((manner) =>
    Array.from({ length: 40 }, () => inventedTake(random, manner)).flatMap((take) =>
      splitTake(known(take)).map(({ at: cut, doubt }, index) => {
        const { start, end } = take.changes[index]!;
        return { doubt, right: cut >= start && cut <= end };
      }),
    ),
  );
}
const shareRight = (cuts: readonly Judged[]): number => cuts.filter(({ right }) => right).length / cuts.length;

describe('a take of many remarks', () => {
  it('is split at the right pause in 95 of 100 cuts, and in 90 where only its pauses are known', () => {
    expect(shareRight(judged((take) => take))).toBeGreaterThanOrEqual(0.95);
    expect(shareRight(judged(({ words: _words, keys: _keys, ...bare }) => bare))).toBeGreaterThanOrEqual(0.9);
  });

  it('is doubted where it is wrong: among the fifth with the most doubt are two thirds of the wrong cuts', () => {
    const cuts = judged(({ words: _words, ...heard }) => heard).toSorted((a, b) => b.doubt - a.doubt);
    const wrong = cuts.filter(({ right }) => !right);
    const doubted = cuts.slice(0, Math.round(cuts.length / 5));
    expect(wrong.length).toBeGreaterThan(5);
    expect(doubted.filter(({ right }) => !right).length / wrong.length).toBeGreaterThan(2 / 3);
    // Doubt is a probability: it foretells how many are wrong.
    const foretold = cuts.reduce((sum, { doubt }) => sum + doubt, 0) / cuts.length;
    expect(Math.abs(foretold - (1 - shareRight(cuts)))).toBeLessThan(0.08);
  });

  it('has one cut for each passage but the first, in order, each inside of the take', () => {
    const seconds = fc.double({ min: 0, max: 60, noNaN: true });
    const anyTake = fc.record({
      duration: fc.double({ min: 1, max: 60, noNaN: true }),
      pauses: fc.array(fc.record({ start: seconds, end: seconds }), { maxLength: 12 }),
      selections: fc.array(fc.record({ at: seconds }), { maxLength: 6 }),
      keys: fc.array(fc.record({ at: seconds }), { maxLength: 4 }),
    });
    fc.assert(
      fc.property(anyTake, (take) => {
        const cuts = splitTake(take);
        expect(cuts).toHaveLength(Math.max(0, take.selections.length - 1));
        cuts.forEach(({ at: cut, doubt }, index) => {
          expect(cut).toBeGreaterThanOrEqual(cuts[index - 1]?.at ?? 0);
          expect(cut).toBeLessThanOrEqual(take.duration);
          expect(doubt).toBeGreaterThanOrEqual(0);
          expect(doubt).toBeLessThanOrEqual(1);
        });
      }),
    );
  });

  it('is split where sentences end rather than where somebody looks for a word', () => {
    const pauses = [pause(5, 5.9), pause(7, 7.5)];
    const words = [
      { word: 'because', start: 4.5, end: 5 },
      { word: 'obvious.', start: 6.4, end: 7 },
      { word: 'Here', start: 7.5, end: 7.8 },
    ];
    const take = { duration: 12, pauses, selections: at(0, 6.8) };
    expect(splitTake(take)[0]!.at).toBeCloseTo(5.45);
    expect(splitTake({ ...take, words })[0]!.at).toBeCloseTo(7.25);
  });

  it('is not split by words that were written down without punctuation', () => {
    const words = [{ word: 'because', start: 4.5, end: 5 }];
    const take = { duration: 12, pauses: [pause(5, 5.9), pause(7, 7.5)], selections: at(0, 6.8) };
    expect(splitTake({ ...take, words })).toEqual(splitTake(take));
  });

  it('is cut at the selection, with all doubt told, where there is no pause', () => {
    expect(splitTake({ duration: 10, pauses: [], selections: at(1, 6) })).toEqual([{ at: 6, doubt: 1 }]);
    const [first, second] = splitTake({ duration: 10, pauses: [pause(5, 5.6)], selections: at(1, 5.8, 6) });
    expect(first!.at).toBeLessThan(second!.at);
  });

  it('keeps its order where two passages were chosen within a breath', () => {
    const cuts = splitTake({ duration: 20, pauses: [pause(5, 6), pause(8, 9)], selections: at(0, 8.8, 8.9) });
    expect(cuts.map(({ at: cut }) => cut)).toEqual([8.5, 8.9]);
    expect(cuts[1]!.doubt).toBe(1);
  });
});
