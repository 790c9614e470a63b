import { describe, expect, it } from 'vitest';
import { gather, packPoints, regionOfStrokes, takeApart, type Hold, type KeptOnWords, type Stroke } from './index.ts';

const stroke = (hold: Hold | undefined, ...places: [number, number][]): Stroke => ({
  ...{ tool: 'pen', colour: 'ink', width: 20, hold },
  points: packPoints(places.map(([x, y]) => ({ x, y, pressure: 0.5, at: 0 }))),
});
/** Letters 0 to 5 of its words, underlined; a unit is a sixteenth of a letter. */
const under: KeptOnWords = { stroke: stroke({ type: 'along' }, [0, 10], [80, 10]), start: 40, end: 45 };
const around: KeptOnWords = {
  stroke: stroke({ type: 'around', start: 0, end: 7, pad: [1, 1, 1, 1], lines: true }, [0, 0], [1000, 1000]),
  ...{ start: 12, end: 19 },
};
const beside: KeptOnWords = { stroke: stroke({ type: 'free', start: 0 }, [0, -50]), start: 30, end: 31 };

describe('strokes of one remark on words', () => {
  it('are counted from the first of their words, and taken apart again', () => {
    const parts = [under, around, beside];
    const { strokes, start, end } = gather(parts);
    expect([start, end]).toEqual([12, 45]);
    expect(strokes.map(({ hold }) => hold && 'start' in hold && hold.start)).toEqual([false, 0, 18]);
    expect(takeApart(strokes, start)).toEqual(parts);
  });

  it('keep their words when the passage is found elsewhere in another version', () => {
    const { strokes } = gather([under, around]);
    expect(takeApart(strokes, 112).map(({ start, end }) => [start, end])).toEqual([
      [140, 145],
      [112, 119],
    ]);
  });
});

describe('the region of strokes on a page', () => {
  it('is around all of them with the width of the pen, as fractions of the page', () => {
    const region = regionOfStrokes([stroke(undefined, [1000, 2000], [3000, 2000])], 0.5);
    expect(region.x).toBeCloseTo(0.099);
    expect(region.width).toBeCloseTo(0.202);
    // A page twice as high as wide: a unit down is half as much of it.
    expect(region.y).toBeCloseTo(0.0995);
  });

  it('stays on the page, and can always be pressed', () => {
    const dot = regionOfStrokes([stroke(undefined, [10_400, -300])], 1);
    expect(dot.x + dot.width).toBeLessThanOrEqual(1);
    expect(dot.y).toBe(0);
    expect(Math.min(dot.width, dot.height)).toBeGreaterThanOrEqual(0.01);
  });
});
