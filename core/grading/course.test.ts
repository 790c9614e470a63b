import fc from 'fast-check';
import Fraction from 'fraction.js';
import { describe, expect, it } from 'vitest';
import {
  courseGrader,
  explainCourse,
  PLAIN_SCHEME,
  schemeProblem,
  type Category,
  type CourseCell,
  type CourseItem,
  type CourseScheme,
} from './index.ts';

const item = (title: string, more: Partial<CourseItem> = {}): CourseItem => ({
  ...{ title, category: '', weight: null, extra: false, possible: 20_00 },
  ...more,
});
const of = (points: number, possible: number): CourseCell => ({
  ...{ points: points * 100, possible: possible * 100 },
  flag: null,
});
const category = (name: string, weight: number | null, more: Partial<Category> = {}): Category => ({
  ...{ name, weight: weight === null ? null : weight * 100, drop: 0, equal: false },
  ...more,
});
const scheme = (more: Partial<CourseScheme>): CourseScheme => ({ ...PLAIN_SCHEME, decimals: 2, ...more });
const graded = (items: CourseItem[], cells: (CourseCell | undefined)[], more: Partial<CourseScheme> = {}) =>
  courseGrader(items, scheme(more))(cells);

const SCALE = [
  { grade: 'Pass', from: 50_00 },
  { grade: 'Merit', from: 70_00 },
];

describe('the result of a course', () => {
  it('adds points up', () => {
    const items = [item('Walk'), item('Pitch'), item('Tides')];
    expect(graded(items, [of(17, 20), of(6, 10), undefined], { scale: SCALE })).toMatchObject({
      ...{ percentage: 76_67, grade: 'Merit', counted: null },
      fates: ['counts', 'counts', 'open'],
    });
  });

  it('weighs assignments, and what is not there yet gives its weight to the others', () => {
    const items = [item('Walk', { weight: 40_00 }), item('Pitch', { weight: 10_00 }), item('Tides', { weight: 50_00 })];
    // (0.85 × 40 + 0.6 × 10) / 50
    expect(graded(items, [of(17, 20), of(6, 10), undefined], { count: 'assignments' })).toMatchObject({
      ...{ percentage: 80_00, counted: 50_00 },
    });
  });

  it('weighs categories; inside them points are added up, or each assignment counts alike', () => {
    const items = [
      item('Walk', { category: 'Essays' }),
      item('Place', { category: 'Essays' }),
      item('Pitch', { category: 'Speaking' }),
    ];
    const cells = [of(20, 20), of(40, 80), of(8, 10)];
    const weights = (equal: boolean): Partial<CourseScheme> => ({
      count: 'categories',
      categories: [category('Essays', 75, { equal }), category('Speaking', 25)],
    });
    expect(graded(items, cells, weights(false)).percentage).toBe(65_00);
    expect(graded(items, cells, weights(true)).percentage).toBe(76_25);
  });

  it('leaves out the lowest of a category, of alike ones the last, and never all', () => {
    const items = [1, 2, 3].map((number) => item(`Quiz ${number}`, { category: 'Quizzes' }));
    const cells = [of(5, 10), of(9, 10), of(5, 10)];
    const drop = (most: number) => graded(items, cells, { categories: [category('Quizzes', null, { drop: most })] });
    expect(drop(1)).toMatchObject({ percentage: 70_00, fates: ['counts', 'counts', 'dropped'] });
    expect(drop(9)).toMatchObject({ percentage: 90_00, fates: ['dropped', 'counts', 'dropped'] });
  });

  it('compares the lowest by their share, not by their points', () => {
    const items = [1, 2].map((number) => item(`Quiz ${number}`, { category: 'Quizzes' }));
    const categories = [category('Quizzes', null, { drop: 1 })];
    expect(graded(items, [of(9, 10), of(40, 80)], { categories }).fates).toEqual(['counts', 'dropped']);
  });

  it('leaves out what is excused, holds back what is incomplete, and counts what is missing as 0', () => {
    const items = [item('Walk'), item('Pitch'), item('Tides')];
    const flagged = (flag: CourseCell['flag']): CourseCell => ({ points: 20_00, possible: 20_00, flag });
    expect(graded(items, [of(16, 20), flagged('excused'), flagged('incomplete')])).toMatchObject({
      ...{ percentage: 80_00, fates: ['counts', 'excused', 'incomplete'] },
    });
    expect(graded(items, [of(16, 20), { points: null, possible: null, flag: 'missing' }, undefined])).toMatchObject({
      ...{ percentage: 40_00, fates: ['counts', 'counts', 'open'] },
    });
  });

  it('adds extra credit to what is earned, and nothing to what is possible', () => {
    const bonus = item('Beach clean', { extra: true, category: 'Essays', weight: 10_00 });
    const items = [item('Walk', { category: 'Essays', weight: 100_00 }), bonus];
    const cells = [of(18, 20), of(3, 5)];
    expect(graded(items, cells).percentage).toBe(105_00);
    expect(graded(items, cells, { count: 'assignments' }).percentage).toBe(96_00);
    expect(
      graded(items, cells, { count: 'categories', categories: [category('Essays', 100, { drop: 1 })] }).percentage,
    ).toBe(105_00);
    expect(graded(items, [undefined, of(3, 5)]).percentage).toBeNull();
  });

  it('is nothing while nothing counts', () => {
    expect(graded([item('Walk')], [undefined])).toMatchObject({ percentage: null, grade: null });
    expect(
      graded([item('Walk', { possible: null })], [{ points: null, possible: null, flag: 'missing' }]).fates,
    ).toEqual(['open']);
  });

  it('reaches a band by the unrounded share', () => {
    const cells = [of(139.99, 200)];
    const { percentage, grade } = graded([item('Walk')], cells, { scale: SCALE, decimals: 0 });
    expect({ percentage, grade }).toEqual({ percentage: 70_00, grade: 'Pass' });
  });

  it('is the same as with fractions that are cancelled at each step (property; fraction.js)', () => {
    const cell = fc.option(
      fc.record({ points: fc.integer({ min: 0, max: 200_00 }), possible: fc.constantFrom(7_00, 10_00, 12_50, 33_33) }),
      { nil: undefined },
    );
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, fc.integer({ min: 1, max: 40_00 })), { maxLength: 30 }), (given) => {
        const items = given.map(([, weight], index) => item(`A${index}`, { weight }));
        const cells = given.map(([one]) => one && { ...one, flag: null });
        const { percentage } = graded(items, cells, { count: 'assignments' });
        const counting = given.flatMap(([one, weight]) => (one ? [{ ...one, weight }] : []));
        const weights = counting.reduce((sum, { weight }) => sum + weight, 0);
        if (weights === 0) {
          expect(percentage).toBeNull();
          return;
        }
        const share = counting
          .reduce(
            (sum, { points, possible, weight }) => sum.add(new Fraction(points, possible).mul(weight)),
            new Fraction(0),
          )
          .div(weights);
        // Half up, in hundredths of a per cent.
        expect(BigInt(percentage!)).toBe(share.mul(100_00).add(new Fraction(1, 2)).floor().n);
      }),
    );
  });
});

describe('the arithmetic of a course in words', () => {
  it('says what counts, what does not, and why', () => {
    const items = [
      item('Walk', { category: 'Essays' }),
      item('Place', { category: 'Essays' }),
      item('Pitch', { category: 'Speaking' }),
      item('Interview', { category: 'Speaking' }),
      item('Notes'),
    ];
    const cells = [
      of(17, 20),
      of(12, 20),
      { points: null, possible: null, flag: 'excused' as const },
      undefined,
      of(3, 5),
    ];
    const categories = [category('Essays', 60, { drop: 1 }), category('Speaking', 40)];
    expect(explainCourse(items, cells, scheme({ count: 'categories', categories, scale: SCALE, decimals: 1 }))).toEqual(
      [
        'Essays, 60 %: Walk 17 of 20. Together 85 %.',
        'Speaking, 40 %: nothing counts yet.',
        '85 % of the 60 % that count so far: Merit.',
        'Not counted, left out as the lowest: Place.',
        'Not counted, excused: Pitch.',
        'Not counted, not graded yet: Interview.',
        'Not counted, without a weight: Notes.',
      ],
    );
  });

  it('names weights and extra credit', () => {
    const items = [item('Walk', { weight: 70_00 }), item('Clean', { weight: 30_00, extra: true })];
    expect(explainCourse(items, [of(14, 20), of(5, 10)], scheme({ count: 'assignments' }))).toEqual([
      'Walk 14 of 20 (70 %), Clean 5 extra. Together 91.43 %.',
      '91.43 % of the 70 % that count.',
    ]);
  });
});

describe('a scheme', () => {
  it('says where nothing counts yet, and speaks of so far only while something is to come', () => {
    const [walk, pitch] = [item('Walk', { weight: 60_00 }), item('Pitch', { weight: 40_00 })];
    expect(explainCourse([walk], [undefined], scheme({}))).toEqual([
      ...['Nothing counts yet.', 'Not counted, not graded yet: Walk.'],
    ]);
    const excused: CourseCell = { points: null, possible: 20_00, flag: 'excused' };
    const weighed = scheme({ count: 'assignments', scale: SCALE });
    expect(explainCourse([walk, pitch], [of(10, 20), excused], weighed)).toEqual([
      'Walk 10 of 20 (60 %). Together 50 %.',
      ...['50 % of the 60 % that count: Pass.', 'Not counted, excused: Pitch.'],
    ]);
    expect(explainCourse([walk, pitch], [of(10, 20), undefined], weighed)[1]).toBe(
      '50 % of the 60 % that count so far: Pass.',
    );
    expect(explainCourse([walk, pitch], [of(9, 20), of(9, 20)], weighed)).toEqual([
      ...['Walk 9 of 20 (60 %), Pitch 9 of 20 (40 %). Together 45 %.', '45 %.'],
    ]);
    const parted = scheme({ count: 'categories', categories: [category('Essays', 70), category('Speaking', 30)] });
    const items = [item('Walk', { category: 'Essays' }), item('Pitch', { category: 'Speaking' })];
    expect(explainCourse(items, [of(10, 20), undefined], parted)).toEqual([
      ...['Essays, 70 %: Walk 10 of 20. Together 50 %.', 'Speaking, 30 %: nothing counts yet.'],
      ...['50 % of the 70 % that count so far.', 'Not counted, not graded yet: Pitch.'],
    ]);
  });

  it('counts extra credit without anything possible, and what is missing by its own maximum', () => {
    const extra = item('Map', { extra: true, weight: 10_00, possible: null });
    const items = [item('Walk', { weight: 100_00 }), extra];
    const map: CourseCell = { points: 2_00, possible: null, flag: null };
    expect(graded(items, [of(10, 20), map]).percentage).toBe(60_00);
    expect(graded(items, [of(10, 20), map], { count: 'assignments' }).percentage).toBe(50_00);
    const missing: CourseCell = { points: null, possible: 10_00, flag: 'missing' };
    expect(graded([item('Walk'), item('Pitch')], [of(10, 10), missing]).percentage).toBe(50_00);
    expect(graded([item('Walk', { possible: null })], [{ ...missing, possible: null }]).percentage).toBeNull();
  });

  it('leaves nothing out where one is to be left out of one, and the band is reached exactly', () => {
    const essays = { count: 'categories' as const, categories: [category('Essays', 100, { drop: 1 })], scale: SCALE };
    expect(graded([item('Walk', { category: 'Essays' })], [of(10, 20)], essays)).toMatchObject({
      ...{ percentage: 50_00, grade: 'Pass', fates: ['counts'] },
    });
  });

  it('is refused where weights do not add up, or a category is there twice', () => {
    const categories = [category('Essays', 60), category('Speaking', 30)];
    expect(schemeProblem(scheme({ count: 'categories', categories }))).toBe(
      'The weights of the categories add up to 90 %, not to 100 %.',
    );
    expect(schemeProblem(scheme({ categories }))).toBeUndefined();
    expect(schemeProblem(scheme({ categories: [category('Essays', 60), category('Essays', 40)] }))).toBe(
      '“Essays” is there twice.',
    );
  });
});
