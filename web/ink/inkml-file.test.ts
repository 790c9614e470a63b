// @vitest-environment happy-dom
import { packPoints, SURFACE_UNITS, unpackPoints, writeInkml } from '#core/ink';
import type { Stroke } from '#contract/ink';
import { describe, expect, it } from 'vitest';
import { NoInkml, readInkml } from './inkml-file.ts';

const stroke = (more: Partial<Stroke> = {}): Stroke => ({
  ...{ tool: 'highlighter', colour: 'repair', width: 60 },
  points: packPoints([
    { x: 100, y: 200, pressure: 0, at: 0 },
    { x: 4000, y: 250, pressure: 1, at: 0.5 },
  ]),
  ...more,
});
const ink = (content: string): string => `<ink xmlns="http://www.w3.org/2003/InkML">${content}</ink>`;

describe('an InkML file', () => {
  it('that was saved here gives back the strokes as they were', () => {
    const strokes = [stroke(), stroke({ tool: 'label', text: 'x < y' }), stroke({ hold: { type: 'along' } })];
    const read = readInkml(writeInkml([{ label: 'Page 1', strokes }], () => '#000000'));
    expect(read).toEqual(strokes.map((one) => ({ stroke: one })));
  });

  it('that was saved here tells on which words a stroke hangs', () => {
    const quote = { exact: 'a “wave” & more', prefix: 'before ', suffix: ' <after>' };
    const groups = [
      { label: 'Words', quote, strokes: [stroke({ hold: { type: 'free', start: 2 } })] },
      { label: 'Page 1', strokes: [stroke()] },
    ];
    expect(readInkml(writeInkml(groups, () => '#000000')).map((one) => one.quote)).toEqual([quote, undefined]);
  });

  it('of another program is made to fit on a page, with what its channels say', () => {
    const [one, two] = readInkml(
      ink(`<definitions><context xml:id="c"><traceFormat><channel name="X"/><channel name="Y"/>
             <channel name="F" max="200"/></traceFormat></context></definitions>
           <trace contextRef="#c">0 0 100, 50 100 200</trace><trace contextRef="#c">50 0 0, 0 0 0</trace>`),
    );
    const points = unpackPoints(one!.stroke.points);
    expect(points.map(({ x, y }) => [x / SURFACE_UNITS, y / SURFACE_UNITS])).toEqual([
      [0.1, 0.1],
      [0.5, 0.9],
    ]);
    expect(points[0]!.pressure).toBeCloseTo(0.5, 1);
    expect([one!.stroke.tool, two!.stroke.colour]).toEqual(['pen', 'ink']);
  });

  it('has X and Y where it does not say what its traces are', () => {
    expect(readInkml(ink('<trace>1 2, 3 4</trace>'))).toHaveLength(1);
  });

  it.each([
    ['another sort of file', '<svg xmlns="http://www.w3.org/2000/svg"/>', 'no InkML file'],
    ['a file without strokes', ink(''), 'no strokes'],
    ['a damaged trace', ink('<trace>1 2, three 4</trace>'), 'cannot be read'],
    [
      'a hold that is none',
      ink('<traceGroup><annotation type="hold">{"type":"x"}</annotation><trace>1 2</trace></traceGroup>'),
      'cannot be read',
    ],
  ])('refuses %s', (_, xml, message) => {
    expect(() => readInkml(xml)).toThrow(NoInkml);
    expect(() => readInkml(xml)).toThrow(message);
  });
});
