import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { splitAtPauses } from './index.ts';

/** Said (200) and silent (4), so many slices of each in turn. */
const said = (...runs: number[]): number[] =>
  runs.flatMap((length, index) => Array<number>(length).fill(index % 2 ? 4 : 200));

describe('splitting at pauses', () => {
  it('finds the lines of what was said, in the middle of each pause', () => {
    expect(splitAtPauses(said(10, 4, 10, 4, 12), 40, 3)).toEqual([
      { start: 0, end: 12 },
      { start: 12, end: 26 },
      { start: 26, end: 40 },
    ]);
  });

  it('takes the longest pauses, not the short breath within a line', () => {
    expect(splitAtPauses(said(10, 1, 9, 6, 14), 40, 2)).toEqual([
      { start: 0, end: 23 },
      { start: 23, end: 40 },
    ]);
  });

  it('does not take silence before or after for a pause, and has fewer where there are no more', () => {
    const peaks = [...Array<number>(8).fill(3), ...said(10, 4, 10), ...Array<number>(8).fill(3)];
    expect(splitAtPauses(peaks, 40, 5)).toHaveLength(2);
    expect(splitAtPauses([], 3, 4)).toEqual([{ start: 0, end: 3 }]);
    expect(splitAtPauses(said(5), 3, 1)).toEqual([{ start: 0, end: 3 }]);
  });

  it('covers the whole recording without a gap, whatever was recorded', () => {
    const peaks = fc.array(fc.integer({ min: 0, max: 255 }), { minLength: 1, maxLength: 200 });
    fc.assert(
      fc.property(
        peaks,
        fc.double({ min: 0.1, max: 1800, noNaN: true }),
        fc.integer({ min: 1, max: 30 }),
        (all, duration, count) => {
          const spans = splitAtPauses(all, duration, count);
          const joined = spans.every(({ start, end }, index) => start === (spans[index - 1]?.end ?? 0) && end > start);
          return joined && spans.at(-1)!.end === duration && spans.length <= count;
        },
      ),
    );
  });
});
