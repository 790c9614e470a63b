import { describe, expect, it } from 'vitest';
import { packPoints, pointsOfTrace, readTrace, writeInkml, type Stroke } from './index.ts';

describe('a trace of InkML', () => {
  // The worked example of section 3.2.1 of the recommendation, from memory.
  it('is read with differences and differences of differences', () => {
    expect(readTrace(`1125 18432,'23'43,"7"-8,3-5,7 -3,6 2`, 2)).toEqual([
      [1125, 18432],
      [1148, 18475],
      [1178, 18510],
      [1211, 18540],
      [1251, 18567],
      [1297, 18596],
    ]);
  });

  it('says a value once more, and goes back to plain values', () => {
    expect(readTrace(`10 20, * 21, '1 '2, * *, !5 !6`, 2)).toEqual([
      [10, 20],
      [10, 21],
      [11, 23],
      [12, 25],
      [5, 6],
    ]);
  });

  it.each([['1 2, x 3'], ['1'], [''], ['1 2; 3 4']])('“%s” is none', (trace) => {
    expect(() => readTrace(trace, 2)).toThrow(RangeError);
  });

  it('has the pressure and the time that its channels tell, in their units', () => {
    const channels = [
      { name: 'T', unit: 0.001 },
      { name: 'Y', unit: 1 },
      { name: 'X', unit: 1 },
      { name: 'F', unit: 1, most: 1024 },
    ];
    expect(pointsOfTrace('500 2 1 512, 750 4 3 2000', channels)).toEqual([
      { x: 1, y: 2, pressure: 0.5, at: 0 },
      { x: 3, y: 4, pressure: 1, at: 0.25 },
    ]);
    expect(() =>
      pointsOfTrace('1 2', [
        { name: 'X', unit: 1 },
        { name: 'F', unit: 1 },
      ]),
    ).toThrow(RangeError);
  });
});

describe('strokes as InkML', () => {
  const stroke: Stroke = {
    ...{ tool: 'label', colour: 'repair', width: 60, text: 'a < b & “c”', hold: { type: 'free', start: 4 } },
    points: packPoints([
      { x: 10, y: -20, pressure: 0.5, at: 0 },
      { x: 12, y: -21, pressure: 1, at: 0.25 },
    ]),
  };

  it('have their places, pressure and time, and say what they are', () => {
    const xml = writeInkml([{ label: 'Page 1 <here>', strokes: [stroke, { ...stroke, colour: 'ink' }] }], (colour) =>
      colour === 'ink' ? '#22201C' : '#C0402A',
    );
    expect(xml).toContain('<ink xmlns="http://www.w3.org/2003/InkML">');
    expect(xml).toMatch(/<trace contextRef="#here">10 -20 0\.508 0, 12 -21 1 250<\/trace>/);
    expect(xml).toContain('Page 1 &lt;here&gt;');
    expect(xml).toContain('<annotation type="text">a &lt; b &amp; “c”</annotation>');
    expect(xml.match(/<brush /g)).toHaveLength(2);
    expect(xml).toContain('value="#C0402A"');
  });
});
