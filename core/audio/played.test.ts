import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isHeard, joinedPlayed, playedShare } from './index.ts';

const LENGTH = 20;
const spans = fc.array(
  fc.tuple(fc.integer({ min: -40, max: 240 }), fc.integer({ min: 0, max: 80 })).map(([start, length]) => ({
    start: start / 10,
    end: (start + length) / 10,
  })),
);

describe('what was played', () => {
  it('counts once, however often it was heard', () => {
    const played = [
      { start: 4, end: 8 },
      { start: 0, end: 5 },
      { start: 4, end: 8 },
    ];
    expect(joinedPlayed(played, LENGTH)).toEqual([{ start: 0, end: 8 }]);
    expect(playedShare(played, LENGTH)).toBe(0.4);
  });

  it('is not what was jumped over', () => {
    const played = [
      { start: 0, end: 1 },
      { start: 18, end: 20 },
    ];
    expect([playedShare(played, LENGTH), isHeard(played, LENGTH)]).toEqual([0.15, false]);
  });

  it('has no seams where a player told its place late, and nothing beyond the end', () => {
    expect(
      joinedPlayed(
        [
          { start: 0, end: 5 },
          { start: 5.2, end: 99 },
        ],
        LENGTH,
      ),
    ).toEqual([{ start: 0, end: LENGTH }]);
    expect(isHeard([{ start: -1, end: 18 }], LENGTH)).toBe(true);
    expect(playedShare([{ start: 0, end: 1 }], 0)).toBe(0);
  });

  it('stays in order and apart, never shrinks, and is the same in any order', () => {
    fc.assert(
      fc.property(spans, spans, (before, more) => {
        const joined = joinedPlayed([...before, ...more], LENGTH);
        joined.forEach(({ start, end }, index) => {
          expect(end).toBeGreaterThan(start);
          if (index > 0) expect(start).toBeGreaterThan(joined[index - 1]!.end);
        });
        expect(playedShare([...before, ...more], LENGTH)).toBeGreaterThanOrEqual(playedShare(before, LENGTH) - 1e-9);
        expect(joinedPlayed([...more, ...before], LENGTH)).toEqual(joined);
        expect(joinedPlayed(joined, LENGTH)).toEqual(joined);
      }),
    );
  });
});
