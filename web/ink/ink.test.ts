import { describe, expect, it } from 'vitest';
import type { DrawnStroke, InkPoint } from '#core/ink';
import { surfaceGround } from './ground.ts';
import type { StrokeChange } from './inking.ts';
import { useCursor } from './use-cursor.ts';
import { useLasso, type Lying } from './use-lasso.ts';

const WIDTH = 1000;
const ground = surfaceGround(2, WIDTH);
const point = (x: number, y: number): InkPoint => ({ x, y, pressure: 0.5, at: 0 });
const stroke = (points: InkPoint[], more: Partial<DrawnStroke> = {}): DrawnStroke => ({
  ...{ tool: 'line', colour: 'ink', width: 2, points },
  ...more,
});
function lying(remark: string, ...points: InkPoint[]): Lying {
  const placed = ground.keep(stroke(points));
  if (!placed || 'held' in placed) throw new Error('It lies on a surface');
  return { remark, stroke: placed.stroke, parts: ground.draw(placed.stroke, 0) };
}
function shown(change: StrokeChange | undefined): number[][] {
  const strokes = change!.to.map((one) => ('held' in one ? one.held.stroke : one.stroke));
  const points = strokes.flatMap((one) => ground.draw(one, 0)).flatMap((drawn) => drawn.points);
  return points.map(({ x, y }) => [Math.round(x), Math.round(y)]);
}

describe('a loop around strokes', () => {
  const near = lying('a', point(100, 100), point(200, 150));
  const far = lying('b', point(500, 500), point(600, 500));
  const chosen = () => {
    const lasso = useLasso(() => ground);
    lasso.begin(point(80, 80));
    for (const at of [point(240, 80), point(240, 180), point(80, 180)]) lasso.move(at);
    expect(lasso.end([near, far])).toEqual([]);
    return lasso;
  };

  it('chooses what is in it', () => {
    expect(chosen().chosen.value).toEqual([near]);
  });

  it('moves it by a drag, and lets it go', () => {
    const lasso = chosen();
    lasso.begin(point(150, 120));
    lasso.move(point(180, 160));
    const [change] = lasso.end([near, far]);
    expect(change).toMatchObject({ remark: 'a', stroke: near.stroke });
    expect(shown(change)).toEqual([
      [130, 140],
      [230, 190],
    ]);
    expect(lasso.chosen.value).toEqual([]);
  });

  it('makes it larger at its corner', () => {
    const lasso = chosen();
    lasso.begin(point(204, 154));
    lasso.move(point(304, 154));
    expect(shown(lasso.end([near, far])[0])).toEqual([
      [100, 100],
      [300, 200],
    ]);
  });

  it('changes nothing by a press, gives another colour, and rubs out', () => {
    const lasso = chosen();
    lasso.begin(point(150, 120));
    expect(lasso.end([near, far])).toEqual([]);
    expect(lasso.recoloured('repair')[0]!.to).toMatchObject([{ stroke: { colour: 'repair' } }]);
    expect(lasso.erased()).toEqual([{ remark: 'a', stroke: near.stroke, to: [] }]);
  });
});

describe('a shape by keyboard', () => {
  const press = (cursor: ReturnType<typeof useCursor>, ...keys: string[]): boolean[] =>
    keys.map((key) => cursor.key({ key, shiftKey: false } as KeyboardEvent));
  const begin = (tool: DrawnStroke['tool']) => {
    const done: DrawnStroke[] = [];
    const cursor = useCursor(
      () => ({ tool, colour: 'ink', width: 2 }),
      () => ({ x: 50, y: 60 }),
      (one) => done.push(one),
    );
    return { cursor, done };
  };

  it('goes from where Enter was pressed to where it is pressed again', () => {
    const { cursor, done } = begin('rectangle');
    press(cursor, 'ArrowRight', 'Enter', 'ArrowDown', 'ArrowDown');
    expect(cursor.shape.value?.points).toMatchObject([
      { x: 62, y: 60 },
      { x: 62, y: 84 },
    ]);
    press(cursor, 'Enter');
    expect(done).toHaveLength(1);
    expect(cursor.shape.value).toBeUndefined();
  });

  it('is given up with Escape, first itself and then the cursor; a third time is somebody else’s', () => {
    const { cursor, done } = begin('arrow');
    press(cursor, 'Enter');
    expect(press(cursor, 'Escape', 'Escape', 'Escape')).toEqual([true, true, false]);
    expect([done, cursor.at.value]).toEqual([[], undefined]);
  });

  it('leaves keys alone where a pen is in hand', () => {
    expect(press(begin('pen').cursor, 'Enter', 'ArrowLeft')).toEqual([false, false]);
  });
});
