import fc from 'fast-check';
import Fraction from 'fraction.js';
import { describe, expect, it } from 'vitest';
import { decimalOf, exact, exactOf, rounded, type Exact } from './exact.ts';
import { CaseError, resultOf, type Case, type LateRule } from './result.ts';

const e = (text: string | number): Exact => exactOf(String(text))!;
const part = (title: string, points: string | number | null, possible: string | number, more: object = {}) => ({
  ...{ title, points: points === null ? null : e(points), possible: e(possible) },
  ...more,
});
const told = (one: Omit<Case, 'decimals'> & { decimals?: number }) => {
  const { points, possible, percent, level, explanation } = resultOf({ decimals: 2, ...one });
  return [points && decimalOf(points, 6), decimalOf(possible, 6), percent && decimalOf(percent, 6), level, explanation];
};
const late = (minutes: number, more: Partial<LateRule> = {}) => ({
  minutes,
  rule: { ...{ grace: 0, unit: 'day' as const, percent: e(10), of: 'possible' as const, floor: e(0) }, ...more },
});

describe('exact numbers, against fraction.js', () => {
  const number = fc.integer({ min: -1_000_000, max: 1_000_000 });
  const below = fc.integer({ min: 1, max: 10_000 });

  it('are rounded half up', () => {
    fc.assert(
      fc.property(number, below, fc.integer({ min: 0, max: 4 }), (of, over, decimals) => {
        const scale = 10 ** decimals;
        const expected = new Fraction(of, over).mul(scale).add(new Fraction(1, 2)).floor();
        const { of: top, over: bottom } = rounded(exact(of, over), decimals);
        expect(new Fraction(top, bottom).mul(scale).equals(expected)).toBe(true);
      }),
    );
  });

  it.each([
    ['0.1', '0.1'],
    ['-2.50', '-2.5'],
    ['12', '12'],
    ['1e3', undefined],
    ['NaN', undefined],
    ['', undefined],
  ])('%s is read as it is written', (text, expected) => {
    const value = exactOf(text);
    expect(value && decimalOf(value, 6)).toBe(expected);
  });

  it('nothing is divided by nothing', () => {
    expect(() => exact(1, 0)).toThrow(RangeError);
  });
});

describe('a result', () => {
  it('is the sum of its parts, and says so', () => {
    expect(told({ parts: [part('A', 7.5, 10), part('B', 5, 10), part('C', 4, 5)] })).toEqual([
      ...['16.5', '25', '66', null, '7.5 + 5 + 4 = 16.5 of 25, that is 66 %.'],
    ]);
  });

  it('a bonus adds points and nothing to what is possible; what was not assessed is not there', () => {
    const parts = [part('A', 9, 10), part('B', 2, 5, { bonus: true }), part('C', null, 50, { notAssessed: true })];
    expect(told({ parts })).toEqual(['11', '10', '110', null, '9 + 2 = 11 of 10, that is 110 %.']);
  });

  it('weights count shares, and give way in proportion for what was not assessed', () => {
    const parts = [part('A', 8, 10, { weight: e(60) }), part('B', 15, 20, { weight: e(40) })];
    expect(told({ parts })).toEqual([
      ...['78', '100', '78', null, '(8/10 × 60 % + 15/20 × 40 %) × 100 = 78 of 100, that is 78 %.'],
    ]);
    expect(told({ parts: [parts[0]!, { ...parts[1]!, notAssessed: true }] })[0]).toBe('80');
    expect(() => told({ parts: [part('A', 8, 10, { weight: e(60) })] })).toThrow('add up to 60 %');
    expect(() => told({ parts: [part('A', 0, 0, { weight: e(100) })] })).toThrow('no possible points');
    expect(() => told({ parts: [part('A', 8, 10, { weight: e(100) }), part('B', 1, 1)] })).toThrow(CaseError);
  });

  it('a bonus beside weights adds its points as they are, and is part of no weight', () => {
    const parts = [
      part('A', 8, 10, { weight: e(60) }),
      part('B', 15, 20, { weight: e(40) }),
      part('Map', 3, 0, { bonus: true }),
      part('Title', null, 5, { bonus: true }),
    ];
    expect(told({ parts })).toEqual([
      ...['81', '100', '81', null, '(8/10 × 60 % + 15/20 × 40 %) × 100 + 3 bonus = 81 of 100, that is 81 %.'],
    ]);
    const assessed = parts.map((one) => (one.title === 'B' ? { ...one, notAssessed: true } : one));
    expect(told({ parts: assessed })[4]).toBe(
      '(8/10 × 60 %) of 60 % that were assessed × 100 + 3 bonus = 83 of 100, that is 83 %.',
    );
  });

  it('extra points and a set total of exactly nothing are what they are', () => {
    const parts = [part('A', 3, 10), part('B', 4, 10)];
    expect(told({ parts, extra: e(-7) })[4]).toBe('3 + 4 = 7, with -7 extra: 0 of 20, that is 0 %.');
    expect(told({ parts, extra: e(-8) })[4]).toBe('3 + 4 = 7, with -8 extra: -1, but not below 0 of 20, that is 0 %.');
    expect(told({ parts, extra: e(0) })[4]).toBe('3 + 4 = 7 of 20, that is 35 %.');
    expect(told({ parts, override: { points: e(0), reason: 'nothing was handed in' } })[0]).toBe('0');
    expect(told({ parts: [part('A', null, 10), part('B', null, 10)] })[4]).toBe('Not scored yet: A, B.');
    expect(() => told({ parts, override: { points: e(-1), reason: 'a slip' } })).toThrow('less than 0');
  });

  it('flags: missing counts as nothing, excused is left out, incomplete is held back, an override has a reason', () => {
    const parts = [part('A', 8, 10)];
    const levels = [{ name: 'Not yet', from: e(0) }];
    expect(told({ parts, flag: 'missing', levels })).toEqual([
      ...['0', '10', '0', 'Not yet', 'Missing: 0 of 10, that is 0 %: Not yet.'],
    ]);
    expect(told({ parts, flag: 'excused' })[0]).toBeNull();
    expect(told({ parts, flag: 'incomplete' })[4]).toBe('Incomplete: held back until the rest is there.');
    expect(told({ parts, override: { points: e(9), reason: 'the fire drill' } })[4]).toBe(
      'Set to 9 of 10: the fire drill, that is 90 %.',
    );
    expect(() => told({ parts, override: { points: e(-1), reason: 'a slip' } })).toThrow(CaseError);
    expect(told({ parts: [part('A', null, 10), part('B', 1, 1)] })[4]).toBe('Not scored yet: A.');
  });

  it.each([
    ['more than there are', [part('A', 101, 100)], 'has 101 points of 100'],
    ['fewer than none', [part('A', -1, 100)], 'fewer than 0'],
    ['nothing to be had', [part('A', 0, 0)], 'no possible points'],
  ])('points: %s', (_, parts, message) => {
    expect(() => told({ parts })).toThrow(message);
  });

  it('a level is reached by the share before it is rounded', () => {
    const levels = [
      { name: 'Pass', from: e(50) },
      { name: 'Merit', from: e(70) },
    ];
    expect(told({ parts: [part('A', 69_999, 100_000)], levels, decimals: 0 }).slice(2, 4)).toEqual(['70', 'Pass']);
    expect(told({ parts: [part('A', 70, 100)], levels })[3]).toBe('Merit');
    expect(told({ parts: [part('A', 49, 100)], levels })[3]).toBeNull();
  });
});

describe('coming late', () => {
  const parts = [part('Essay', 65, 100)];

  // From memory, University College London, Academic Manual, chapter 4, "Late submission": within two working days ten
  // percentage points are taken away, but no mark falls below the pass mark because of it. (Its pass mark is 40 % or 50 %.)
  it('ten percentage points, but not below the pass mark', () => {
    const rule = late(60, { unit: 'day', floor: e(50) });
    expect(told({ parts, late: rule })[0]).toBe('55');
    expect(told({ parts: [part('Essay', 54, 100)], late: rule })).toEqual([
      ...['50', '100', '50', null, '54, less 10 % of 100 for 1 day late, down to the floor: 50 of 100, that is 50 %.'],
    ]);
    // Who had not passed loses nothing more.
    expect(told({ parts: [part('Essay', 45, 100)], late: rule })[0]).toBe('45');
  });

  // Common practice: five per cent of the marks available for each day or part of a day.
  it('so much for each day that has begun', () => {
    const rule = (minutes: number) => late(minutes, { percent: e(5) });
    expect([1, 1440, 1441, 4321].map((minutes) => told({ parts, late: rule(minutes) })[0])).toEqual([
      '60',
      '60',
      '55',
      '45',
    ]);
  });

  it('says how many days', () => {
    expect(told({ parts, late: late(2000) })[4]).toContain('less 20 % of 100 for 2 days late: 45 of 100');
  });

  it('nothing within the grace, and then from its end; of what was earned, by the hour', () => {
    const rule = (minutes: number) => late(minutes, { grace: 15, unit: 'hour', percent: e('2.5'), of: 'earned' });
    expect(told({ parts, late: rule(15) })[0]).toBe('65');
    expect(told({ parts, late: rule(16) })).toEqual([
      ...['63.38', '100', '63.38', null],
      '65, less 2.5 % of them for 1 hour late: 63.375 of 100, rounded to 63.38, that is 63.38 %.',
    ]);
  });

  it('never gives anything, and never takes more than there is', () => {
    const cents = fc.integer({ min: 0, max: 10_000 });
    fc.assert(
      fc.property(cents, cents, cents, fc.integer({ min: 0, max: 100_000 }), (points, percent, floor, minutes) => {
        const own = [{ title: 'A', points: exact(points, 100), possible: exact(100) }];
        const rule = late(minutes, { percent: exact(percent, 100), floor: exact(floor, 100) });
        const { points: left } = resultOf({ parts: own, late: rule, decimals: 6 });
        const value = new Fraction(left!.of, left!.over);
        const days = Math.ceil(minutes / 1440);
        const plain = new Fraction(points, 100).sub(new Fraction(percent, 100).mul(days));
        const least = new Fraction(Math.min(points, floor), 100);
        expect(value.equals(plain.compare(least) > 0 ? plain : least)).toBe(true);
      }),
    );
  });
});
