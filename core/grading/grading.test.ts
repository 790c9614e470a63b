import fc from 'fast-check';
import Fraction from 'fraction.js';
import { parseHundredths } from './hundredths.ts';
import { describe, expect, it } from 'vitest';
import {
  formatHundredths,
  halfSteps,
  outcomeOf,
  PLAIN_MARKING,
  pointsProblem,
  weightProblem,
  type Rubric,
  type Scale,
} from './index.ts';

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

const at = (id: string) => ({ level: id });
const all = { a: at('a2'), b: at('b2'), c: at('c1') };

describe('outcomeOf', () => {
  it('adds the chosen levels and says what is missing', () => {
    expect(outcomeOf({ rubric, scores: { a: at('a2'), c: at('c1') } })).toEqual({
      ...{ grade: null, missing: ['b'], soFar: 1100 },
      explanation: 'Not scored yet: Evidence.',
    });
    expect(outcomeOf({ rubric, scores: {} })).toMatchObject({ soFar: 0, missing: ['a', 'b', 'c'] });
  });

  it('does not guess at a level that is not there, or at points that are not given', () => {
    expect(() => outcomeOf({ rubric, scores: { a: at('b1') } })).toThrow('“Observation” has no level b1');
    expect(() => outcomeOf({ rubric, scores: { a: { points: 1001 } } })).toThrow(RangeError);
  });

  it('is a grade with its arithmetic when all is scored', () => {
    expect(outcomeOf({ rubric, scores: all, scale }).grade).toEqual({
      ...{ points: 1850, possible: 2250, percentage: 8222, grade: 'Merit' },
      explanation: '10 + 7.5 + 1 = 18.5 of 22.5, that is 82.22 %: Merit.',
    });
  });

  it('has no name below the lowest band, and is none where no points can be had', () => {
    const lowest = { a: at('a1'), b: at('b1'), c: at('c1') };
    expect(outcomeOf({ rubric, scores: lowest, scale: scale.slice(0, 2) }).grade).not.toHaveProperty('grade');
    expect(outcomeOf({ rubric: [], scores: {} })).toMatchObject({
      grade: null,
      explanation: 'Nothing can be scored: there are no possible points.',
    });
  });

  it('takes typed points, leaves out what was not assessed, and does not wait for a bonus', () => {
    const scores = { ...all, a: { points: 333 }, b: { notAssessed: true as const } };
    expect(outcomeOf({ rubric, scores }).grade).toMatchObject({ points: 433, possible: 1500 });
    const bonus = rubric.map((criterion) => (criterion.id === 'c' ? { ...criterion, bonus: true } : criterion));
    expect(outcomeOf({ rubric: bonus, scores: { a: at('a2'), b: at('b2') } }).grade).toMatchObject({
      ...{ points: 1750, possible: 1750 },
    });
    expect(outcomeOf({ rubric: bonus, scores: all }).grade).toMatchObject({ points: 1850, possible: 1750 });
  });

  it('weighs, takes off for lateness, adds extra credit and gives way to a total with a reason', () => {
    const weights = [5000, 2500, 2500];
    const weighted = rubric.map((criterion, index) => ({ ...criterion, weight: weights[index]! }));
    const late = { grace: 60, unit: 'day', percent: 500, of: 'possible', floor: 0 } as const;
    const marking = { ...PLAIN_MARKING, possible: 4000, late };
    const sheet = { rubric: weighted, scores: all, marking };
    expect(outcomeOf(sheet).grade).toMatchObject({ points: 3200, possible: 4000 });
    expect(outcomeOf({ ...sheet, minutesLate: 60 }).grade).toMatchObject({ points: 3200 });
    expect(outcomeOf({ ...sheet, minutesLate: 61 }).grade).toMatchObject({ points: 3000 });
    const adjustment = { extra: 150, total: null, reason: '' };
    expect(outcomeOf({ ...sheet, adjustment }).grade).toMatchObject({ points: 3350 });
    expect(outcomeOf({ ...sheet, adjustment: { extra: null, total: 2000, reason: 'Agreed' } })).toMatchObject({
      grade: { points: 2000 },
      explanation: 'Set to 20 of 40: Agreed, that is 50 %.',
    });
  });

  it('grades a work that has no parts as a whole', () => {
    const marking = { ...PLAIN_MARKING, possible: 2000 };
    const whole = (total: number | null) =>
      outcomeOf({ rubric: [], scores: {}, marking, adjustment: { extra: null, total, reason: '' } });
    expect(whole(null)).toMatchObject({ grade: null, explanation: 'Not scored yet: The work.' });
    expect(whole(1700).grade).toMatchObject({ points: 1700, possible: 2000, percentage: 8500 });
    // What stands is shown as it stands, however it came there.
    expect(whole(2001).grade).toMatchObject({ points: 2001, percentage: 100_05 });
  });

  it('takes no typed grade above the most or below 0, and says so with one sentence', () => {
    expect(pointsProblem(2000, 2000)).toBeUndefined();
    expect(pointsProblem(2001, null)).toBeUndefined();
    expect(pointsProblem(2001, 2000)).toBe('The most is 20 points. Give extra points at the desk to go above it.');
    expect(pointsProblem(-1, 2000)).toBe('A grade is not less than 0.');
  });

  it('lets lateness take nothing from a total, with a rubric and without', () => {
    const late = { percent: 10_00, of: 'possible', floor: 0, grace: 0, unit: 'day' } as const;
    const marking = { ...PLAIN_MARKING, possible: 2000, late };
    const adjustment = { extra: null, total: 1500, reason: 'Agreed' };
    const typed = { marking, adjustment, minutesLate: 3000, scores: {} };
    expect(outcomeOf({ ...typed, rubric: [] }).grade).toMatchObject({ points: 1500 });
    expect(outcomeOf({ ...typed, rubric }).grade).toMatchObject({ points: 1500 });
    const extra = { ...typed, rubric: [], adjustment: { ...adjustment, extra: 100 } };
    expect(outcomeOf(extra).grade).toMatchObject({ points: 1600 });
  });

  it('is never below 0, and lateness never raises it', () => {
    const amount = fc.integer({ min: -1000, max: 1000 }).map((value) => value * 10);
    fc.assert(
      fc.property(
        ...([amount, fc.integer({ min: 0, max: 2000 }), fc.integer({ min: 0, max: 20_000 })] as const),
        ...([
          fc.constantFrom('earned', 'possible'),
          fc.integer({ min: 0, max: 100 }),
          fc.integer({ min: 0, max: 100 }),
        ] as const),
        (extra, total, minutesLate, of, percent, floor) => {
          const late = { percent: percent * 100, of, floor: floor * 100, grace: 5, unit: 'hour' } as const;
          const [criterion] = rubric;
          const sheet = {
            rubric: [{ ...criterion!, levels: [{ id: 'l', title: 'L', description: '', points: 2000 }] }],
            scores: { [criterion!.id]: { points: total } },
            adjustment: { extra, total: null, reason: '' },
          };
          const onTime = outcomeOf({ ...sheet, marking: PLAIN_MARKING }).grade!;
          const after = outcomeOf({ ...sheet, marking: { ...PLAIN_MARKING, late }, minutesLate }).grade!;
          expect(onTime.points).toBeGreaterThanOrEqual(0);
          expect(after.points).toBeGreaterThanOrEqual(0);
          expect(after.percentage).toBeGreaterThanOrEqual(0);
          expect(after.points).toBeLessThanOrEqual(onTime.points);
        },
      ),
    );
    const below = { rubric: [], scores: {}, marking: { ...PLAIN_MARKING, possible: 2000 } };
    const { grade } = outcomeOf({ ...below, adjustment: { extra: -600, total: 500, reason: '' } });
    expect(grade).toMatchObject({
      points: 0,
      explanation: '5, with -6 extra: -1, but not below 0 of 20, that is 0 %.',
    });
  });

  it('follows the flags', () => {
    expect(outcomeOf({ rubric, scores: {}, standing: { flag: 'missing' } }).grade).toMatchObject({
      points: 0,
      percentage: 0,
    });
    expect(outcomeOf({ rubric, scores: all, standing: { flag: 'incomplete' } }).grade).toBeNull();
    expect(outcomeOf({ rubric, scores: all, standing: { flag: 'excused' } }).explanation).toBe(
      'Excused: left out of everything.',
    );
  });

  it('rounds once, half up, and reaches a band by the share before it (property, against fraction.js)', () => {
    const points = fc.integer({ min: 0, max: 1_000_000 });
    const from = fc.uniqueArray(fc.integer({ min: 0, max: 10_000 }), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(points, fc.integer({ min: 1, max: 1_000_000 }), from, (got, most, steps) => {
        fc.pre(got <= most);
        const bands = steps.map((step) => ({ grade: String(step), from: step }));
        const one = outcomeOf({
          rubric: [],
          scores: {},
          questions: [{ id: 'q', points: most }],
          points: { q: got },
          scale: bands,
        });
        const share = new Fraction(got).div(most);
        expect(one.grade!.percentage).toBe(Number(share.mul(10_000).add(new Fraction(1, 2)).floor()));
        const reached = steps.filter((step) => share.compare(new Fraction(step, 10_000)) >= 0);
        expect(one.grade!.grade).toBe(reached.length > 0 ? String(Math.max(...reached)) : undefined);
      }),
    );
  });

  it('does not let 69.999 % pass for 70 %', () => {
    const one = outcomeOf({
      rubric: [],
      scores: {},
      questions: [{ id: 'q', points: 100_000 }],
      points: { q: 69_999 },
      scale,
    });
    expect(one.grade).toMatchObject({ percentage: 7000, grade: 'Pass' });
  });
});

describe('weights', () => {
  const weigh = (...weights: (number | undefined)[]) =>
    rubric.map((criterion, index) => ({ ...criterion, weight: weights[index] }));

  it.each([
    [weigh(), 0, undefined],
    [weigh(5000, 2500, 2500), 0, undefined],
    [weigh(5000, 2500, 2500), 1, 'Questions have no weights, so the criteria beside them cannot have any.'],
    [weigh(5000, 2500), 0, 'Give a weight to each criterion, or to none.'],
    [weigh(5000, 2500, 2000), 0, 'The weights add up to 95 %, not to 100 %.'],
  ])('are told where they do not add up (%#)', (weighted, questions, problem) => {
    expect(weightProblem(weighted, questions)).toBe(problem);
  });
});

it('half steps lie between each two levels', () => {
  expect(halfSteps({ levels: [level('x', 500), level('y', 0), level('z', 250)] })).toEqual([125, 375]);
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
    expect(outcomeOf({ rubric: [], scores: {}, questions, points: { q: 125 } })).toMatchObject({
      ...{ soFar: 125, missing: ['r'] },
    });
    expect(outcomeOf({ rubric: [], scores: {}, questions, points: { q: 251, r: 0 } })).toMatchObject({
      ...{ grade: null, explanation: '“Question 1” has 2.51 points of 2.5.' },
    });
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
