import fc from 'fast-check';
import Fraction from 'fraction.js';
import { parseHundredths } from './hundredths.ts';
import { describe, expect, it } from 'vitest';
import { bandReached, formatHundredths, gradeOf, percentage, total, type Rubric, type Scale } from './index.ts';

const level = (id: string, points: number) => ({ id, title: id, description: '', points });
const rubric: Rubric = [
  { id: 'a', title: 'Observation', description: '', levels: [level('a1', 200), level('a2', 1000)] },
  { id: 'b', title: 'Evidence', description: '', levels: [level('b1', 0), level('b2', 750)] },
  { id: 'c', title: 'Line of thought', description: '', levels: [level('c1', 100), level('c2', 500)] },
];
const scale: Scale = [
  { grade: 'Pass', from: 5000 },
  { grade: 'Merit', from: 7000 },
  { grade: 'Not yet', from: 0 },
];

describe('total', () => {
  it('adds the chosen levels and says what is missing', () => {
    expect(total({ rubric, scores: { a: 'a2', c: 'c1' } })).toEqual({ points: 1100, possible: 2250, missing: ['b'] });
    expect(total({ rubric, scores: {} })).toEqual({ points: 0, possible: 2250, missing: ['a', 'b', 'c'] });
  });

  it('does not guess at a level that is not there', () => {
    expect(() => total({ rubric, scores: { a: 'b1' } })).toThrow('“Observation” has no level b1');
  });
});

describe('gradeOf', () => {
  it('is there when all is scored, and not before', () => {
    expect(gradeOf({ rubric, scores: { a: 'a2', b: 'b2' } }, scale)).toBeUndefined();
    expect(gradeOf({ rubric, scores: { a: 'a2', b: 'b2', c: 'c1' } }, scale)).toEqual({
      points: 1850,
      possible: 2250,
      percentage: 8222,
      grade: 'Merit',
    });
  });

  it('has no name below the lowest band, and is none where no points can be had', () => {
    expect(gradeOf({ rubric, scores: { a: 'a1', b: 'b1', c: 'c1' } }, scale.slice(0, 2))).toMatchObject({
      points: 300,
      grade: undefined,
    });
    expect(gradeOf({ rubric: [], scores: {} }, scale)).toBeUndefined();
  });
});

describe('exact arithmetic, against fraction.js', () => {
  const points = fc.integer({ min: 0, max: 1_000_000 });
  const possible = fc.integer({ min: 1, max: 1_000_000 });

  it('rounds percentages half up', () => {
    fc.assert(
      fc.property(points, possible, (got, most) => {
        const exact = new Fraction(got).mul(10_000).div(most);
        expect(percentage(got, most)).toBe(Number(exact.add(new Fraction(1, 2)).floor()));
      }),
    );
    expect(percentage(1, 20_000)).toBe(1);
    expect(() => percentage(1, 0)).toThrow(RangeError);
  });

  it('reaches a band exactly when the unrounded share does', () => {
    const from = fc.uniqueArray(fc.integer({ min: 0, max: 10_000 }), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(points, possible, from, (got, most, steps) => {
        const bands = steps.map((step) => ({ grade: String(step), from: step }));
        const share = new Fraction(got).div(most);
        const reached = steps.filter((step) => share.compare(new Fraction(step, 10_000)) >= 0);
        expect(bandReached(bands, got, most)?.from).toBe(reached.length > 0 ? Math.max(...reached) : undefined);
      }),
    );
  });

  it('does not let 69.999 % pass for 70 %', () => {
    expect(percentage(69_999, 100_000)).toBe(7000);
    expect(bandReached(scale, 69_999, 100_000)?.grade).toBe('Pass');
  });
});

describe('formatHundredths', () => {
  it.each([
    [750, '7.5'],
    [800, '8'],
    [1005, '10.05'],
    [-25, '-0.25'],
    [0, '0'],
  ])('%d is %s', (value, text) => {
    expect(formatHundredths(value)).toBe(text);
  });
});

describe('points of questions', () => {
  const questions = [
    { id: 'q', points: 250 },
    { id: 'r', points: 100 },
  ];

  it('are added to those of the rubric, and missing until they are given', () => {
    expect(total({ rubric: [], scores: {}, questions, points: { q: 125 } })).toEqual({
      points: 125,
      possible: 350,
      missing: ['r'],
    });
    expect(() => total({ rubric: [], scores: {}, questions, points: { q: 251 } })).toThrow(RangeError);
  });

  it.each([
    ['7.5', 750],
    ['7,5', 750],
    [' 12 ', 1200],
    ['0.05', 5],
    ['3.', 300],
    ['-0.25', -25],
    ['1.234', undefined],
    ['.5', undefined],
    ['two', undefined],
    ['', undefined],
  ])('are read from %o', (text, value) => {
    expect(parseHundredths(text)).toBe(value);
  });
});
