import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { drawOnSurface, keepOnSurface, packPoints, pathOf, thinPoints, TOLERANCE, unpackPoints } from './index.ts';
import type { DrawnStroke, InkPoint } from './stroke.ts';
import { isInside, penPressure, touches } from './touch.ts';

const coordinate = fc.integer({ min: -20_000, max: 20_000 });
const anyPoint = fc.record({
  x: coordinate,
  y: coordinate,
  pressure: fc.integer({ min: 0, max: 63 }).map((step) => step / 63),
  at: fc.integer({ min: 0, max: 200_000 }).map((tick) => tick / 100),
});
const point = (x: number, y: number, at = 0): InkPoint => ({ x, y, pressure: 0.5, at });
const stroke = (points: InkPoint[], more: Partial<DrawnStroke> = {}): DrawnStroke => ({
  ...{ tool: 'pen', colour: 'ink', width: 4, points },
  ...more,
});
/** A minute of writing at 120 points a second: letters of 12 px, a word a second, a line every ten. */
const writing = (): InkPoint[] =>
  Array.from({ length: 7200 }, (_, index) => {
    const at = index / 120;
    return {
      x: 40 + (at % 10) * 60 + 6 * Math.cos(at * 14),
      y: 80 + Math.floor(at / 10) * 30 + 6 * Math.sin(at * 14),
      pressure: 0.5 + 0.3 * Math.sin(at * 5),
      at,
    };
  });

describe('packed points', () => {
  it('come back as they were', () => {
    fc.assert(
      fc.property(fc.array(anyPoint, { maxLength: 60 }), (points) => {
        const back = unpackPoints(packPoints(points));
        expect(back).toHaveLength(points.length);
        back.forEach((one, index) => {
          const { x, y, pressure, at } = points[index]!;
          expect([one.x, one.y]).toEqual([x, y]);
          expect(one.pressure).toBeCloseTo(pressure);
          expect(one.at).toBeCloseTo(at);
        });
      }),
    );
  });

  it('are written as ECMA-426 writes its mappings', () => {
    // Digits of the worked examples there: 0 is A, 1 is C, -1 is D, 16 is gB, 123 is 2H.
    expect(packPoints([{ x: 0, y: 1, pressure: 0, at: 0 }])).toBe('ACAA');
    expect(packPoints([{ x: -1, y: 16, pressure: 0, at: 1.23 }])).toBe('DgBA2H');
  });

  it.each([['A'], ['AAA'], ['AAA!'], ['AAAg']])('refuse “%s”, which is none', (packed) => {
    expect(() => unpackPoints(packed)).toThrow(RangeError);
  });

  it('of a minute of writing take less than 20 kB on a leaf of 800 pixels', () => {
    expect(keepOnSurface(stroke(writing()), 800).points.length).toBeLessThan(20_000);
  });
});

describe('thinning', () => {
  const wavy = fc.array(fc.record({ x: fc.integer({ min: 0, max: 400 }), y: fc.integer({ min: 0, max: 400 }) }), {
    minLength: 1,
    maxLength: 80,
  });

  it('leaves every point within a quarter of a pixel of where the rest says that it was at its moment', () => {
    fc.assert(
      fc.property(wavy, (places) => {
        const points = places.map(({ x, y }, index) => point(x, y, index / 60));
        const left = thinPoints(points);
        expect([left[0], left.at(-1)]).toEqual([points[0], points.at(-1)]);
        for (const { x, y, at } of points) {
          const after = left.find((one) => one.at >= at)!;
          const before = left.findLast((one) => one.at <= at)!;
          const share = after.at > before.at ? (at - before.at) / (after.at - before.at) : 0;
          const [px, py] = [before.x + share * (after.x - before.x), before.y + share * (after.y - before.y)];
          expect(Math.hypot(px - x, py - y)).toBeLessThanOrEqual(TOLERANCE + 1e-9);
        }
      }),
    );
  });

  it('keeps two points of a straight line, and a third where its pace changed', () => {
    expect(thinPoints([point(0, 0, 0), point(5, 5, 0.5), point(10, 10, 1)])).toHaveLength(2);
    expect(thinPoints([point(0, 0, 0), point(2, 2, 0.5), point(10, 10, 1)])).toHaveLength(3);
  });
});

describe('a stroke on a page', () => {
  it('lies at the same place of it however large it is shown', () => {
    const kept = keepOnSurface(stroke([point(100, 50), point(300, 250, 1)]), 800);
    const larger = drawOnSurface(kept, 1600);
    expect(larger.points.map(({ x, y }) => [x, y])).toEqual([
      [200, 100],
      [600, 500],
    ]);
    expect(larger.width).toBeCloseTo(8);
  });
});

describe('the path of a stroke', () => {
  it('of a pen is an outline as wide as the pen', () => {
    const straight = Array.from({ length: 30 }, (_, index) => ({ ...point(index * 10, 0, index / 60), pressure: 0.5 }));
    const { d, filled } = pathOf(stroke(straight, { tool: 'highlighter', width: 20 }));
    const heights = [...d.matchAll(/-?[\d.]+ (-?[\d.]+)/g)].map(([, y]) => Number(y));
    expect(filled).toBe(true);
    expect(Math.max(...heights) - Math.min(...heights)).toBeCloseTo(20, 0);
  });

  it('of shapes is made from where they begin and end', () => {
    const corners = [point(10, 20), point(110, 70)];
    const of = (tool: DrawnStroke['tool']): string => pathOf(stroke(corners, { tool })).d;
    expect(of('line')).toBe('M10 20L110 70');
    expect(of('rectangle')).toBe('M10 20H110V70H10Z');
    expect(of('ellipse')).toBe('M10 45A50 25 0 1 0 110 45A50 25 0 1 0 10 45Z');
    expect(of('arrow')).toMatch(/^M10 20L110 70 M[\d.]+ [\d.]+L110 70L/);
    expect(of('label')).toBe('');
  });
});

describe('what is touched', () => {
  const line = stroke([point(0, 0), point(100, 0)], { tool: 'line' });
  const box = stroke([point(0, 0), point(100, 100)], { tool: 'rectangle' });

  it('by an eraser is what is seen of a stroke', () => {
    expect(touches(line, { x: 50, y: 6 }, 5)).toBe(true);
    expect(touches(line, { x: 50, y: 9 }, 5)).toBe(false);
    expect(touches(box, { x: 50, y: 50 }, 5)).toBe(false);
    expect(touches(box, { x: 100, y: 50 }, 5)).toBe(true);
    expect(touches(stroke([point(5, 5)]), { x: 7, y: 5 }, 3)).toBe(true);
  });

  it('by a loop is what lies in it for the most part', () => {
    const loop = [point(-10, -10), point(80, -10), point(80, 10), point(-10, 10)];
    const dense = stroke(Array.from({ length: 11 }, (_, index) => point(index * 10, 0)));
    expect(isInside(dense, loop)).toBe(true);
    expect(isInside(box, loop)).toBe(false);
  });

  it('draws broader the flatter its pen is held, and never more than it can', () => {
    const upright = penPressure(0.4, Math.PI / 2);
    const [leaning, flat] = [penPressure(0.4, Math.PI / 4), penPressure(0.4, 0)];
    expect(upright).toBeCloseTo(0.4);
    expect(leaning).toBeGreaterThan(upright);
    expect(flat).toBeGreaterThan(leaning);
    expect([penPressure(0.9, 0), penPressure(0.4, undefined)]).toEqual([1, 0.4]);
  });
});
