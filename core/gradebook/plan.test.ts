import { describe, expect, it } from 'vitest';
import { keepsOut, lockOf, planImport, type Standing } from './index.ts';

const students = [
  { id: 'a', name: 'Aroha Ngata', number: 'A7', mail: 'aroha@fennick.example' },
  { id: 'm', name: 'Mirza Hadžić', number: '', mail: '' },
  { id: 'z1', name: 'Zofia Krol', number: 'Z1', mail: '' },
  { id: 'z2', name: 'Zofia Krol', number: 'Z2', mail: '' },
];
const columns = [
  { id: 'log', title: 'First sounding', possible: 1000 },
  { id: 'pitch', title: 'A pitch (of 3)', possible: null },
];
const NOTHING: Standing = { points: null, flag: null, locked: undefined };
const plan = (rows: string[][], standing: (student: string) => Partial<Standing> = () => ({})) =>
  planImport(rows, { students, columns }, (student) => ({ ...NOTHING, ...standing(student) }));
const fates = (rows: string[][], standing?: (student: string) => Partial<Standing>) =>
  plan(rows, standing).cells.map(({ line, fate, to, why }) => [line, fate, to, ...(why === undefined ? [] : [why])]);

it('a nameless cell takes no flag from elsewhere either, and a returned one does', () => {
  const locks = [
    lockOf({ nameless: true, again: false, state: null }),
    lockOf({ nameless: false, again: false, state: 'returned' }),
    undefined,
  ];
  expect(locks.map((lock) => [keepsOut(lock, { points: 1 }), keepsOut(lock, { flag: 'late' })])).toEqual([
    [true, true],
    [true, false],
    [false, false],
  ]);
});

it('a cell says why it takes no grade: marked without names, then a new version, then its return', () => {
  const lock = (nameless: boolean, again: boolean, state: string | null) => lockOf({ nameless, again, state });
  expect(lock(true, true, 'returned')).toBe('It is marked without names.');
  expect(lock(false, true, 'returned')).toContain('A new version is to be marked');
  expect(lock(false, false, 'returned')).toContain('Take it back at the desk');
  expect([lock(false, false, 'draft'), lock(false, false, null), lockOf(null), lockOf(undefined)]).toEqual(
    Array(4).fill(undefined),
  );
});

describe('a table of grades', () => {
  it('finds a student by name where the number says nothing, and by a number alone', () => {
    expect(
      fates([
        ['Number', 'Name', 'First  SOUNDING (out of 10)'],
        ['X9', 'Aroha Ngata', '7'],
        ['Z1', 'Somebody else', '6'],
        ['X9', 'Nobody', '5'],
      ]),
    ).toEqual([
      ...[
        [2, 'new', '7'],
        [3, 'new', '6'],
      ],
      [4, 'refused', '', 'Nobody in this course is called so.'],
    ]);
    expect(
      fates([
        ['Mail', 'First sounding'],
        ['someone@fennick.example', '7'],
      ])[0]!.at(-1),
    ).toBe('Nobody in this course is called so.');
    expect(
      plan([
        ['Student', 'First sounding'],
        ['Nobody', '7'],
      ]).cells[0]!.student,
    ).toBe('Nobody');
  });

  it('passes over what follows from the rest, and heads that are empty', () => {
    const head = ['Student', 'Course grade', ' ', 'First sounding (of 10)', 'course per cent', 'Remarks'];
    expect(plan([head, ['Aroha Ngata', 'A', 'x', "'7", '70', 'well']])).toMatchObject({
      passedOver: ['Remarks'],
      cells: [{ fate: 'refused' }],
    });
    expect(plan([head, ['Aroha Ngata', 'A', 'x', ' 7 ', '70', 'well']]).cells).toHaveLength(1);
    expect(plan([["'=Student"], ['x']]).problem).toContain('The first line');
  });

  it('lets a flag through to what was returned, and nothing to what is marked without names', () => {
    const table = [
      ['Student', 'First sounding'],
      ['Aroha Ngata', 'excused'],
    ];
    const returned = lockOf({ nameless: false, again: false, state: 'returned' });
    expect(fates(table, () => ({ points: 700, locked: returned }))[0]!.slice(1, 3)).toEqual(['changed', 'excused']);
    const nameless = lockOf({ nameless: true, again: false, state: null });
    expect(fates(table, () => ({ locked: nameless }))[0]).toEqual([2, 'refused', 'excused', nameless]);
  });

  it('is not taken where two assignments are called alike', () => {
    const twice = [...columns, { id: 'again', title: 'First Sounding', possible: 500 }];
    const { problem, cells, passedOver } = planImport(
      [
        ['Student', 'First sounding'],
        ['Aroha Ngata', '7'],
      ],
      { students, columns: twice },
      () => NOTHING,
    );
    expect([problem, cells, passedOver]).toEqual([
      ...['“First sounding” could be more than one assignment, so nothing is taken.', [], []],
    ]);
  });

  it('would change what it says, and nothing where it is empty', () => {
    const table = [
      ['Student', 'Number', 'First sounding [10]', 'Notes'],
      ['Aroha Ngata', 'A7', '7,5', 'good'],
      ['mirza  hadžić', '', '', ''],
      ['', '', '', ''],
    ];
    expect(plan(table)).toEqual({
      passedOver: ['Notes'],
      cells: [
        {
          ...{ line: 2, student: 'Aroha Ngata', assignment: 'First sounding', from: '', to: '7.5', fate: 'new' },
          change: { student: 'a', assignment: 'log', to: { points: 750 } },
        },
      ],
    });
  });

  it('tells what is new from what is changed, and leaves alone what is there already', () => {
    const table = [
      ['Mail', 'First sounding'],
      ['AROHA@fennick.example', '80%'],
    ];
    expect(fates(table, () => ({ points: 700 }))).toEqual([[2, 'changed', '8']]);
    expect(fates(table, () => ({ points: 800 }))).toEqual([[2, 'unchanged', '8']]);
    expect(plan(table, () => ({ flag: 'missing', points: 0 })).cells[0]!.change!.to).toEqual({
      points: 800,
      flag: null,
    });
    expect(
      fates([
        ['Mail', 'First sounding'],
        ['aroha@fennick.example', 'excused'],
      ]),
    ).toEqual([[2, 'new', 'excused']]);
  });

  it('knows students by number before their name, and refuses where it cannot tell', () => {
    expect(
      fates([
        ['Student', 'Number', 'First sounding'],
        ['Zofia Krol', 'Z2', '9'],
        ['Zofia Krol', '', '8'],
        ['Nobody', '', '8'],
        ['', '', '8'],
        ['Zofia Krol', 'z2', '3'],
      ]),
    ).toEqual([
      [2, 'new', '9'],
      [3, 'refused', '', '2 students are called so. Their numbers would tell them apart.'],
      [4, 'refused', '', 'Nobody in this course is called so.'],
      [5, 'refused', '', 'The line does not say whose it is.'],
      [6, 'refused', '', 'Zofia Krol is on line 2 already.'],
    ]);
  });

  it('refuses letters in a number, formulas, what was returned, and what is out of nothing', () => {
    const table = (grade: string, title = 'First sounding') => [
      ['Student', title],
      ['Aroha Ngata', grade],
    ];
    expect(fates(table('7o'))[0]).toEqual([2, 'refused', '7o', expect.stringContaining('“7o” is no grade') as string]);
    expect(fates(table('=A1+1'))[0]!.slice(0, 2)).toEqual([2, 'refused']);
    expect(fates(table('9'), () => ({ points: 700, locked: 'It has been returned.' }))).toEqual([
      [2, 'refused', '9', 'It has been returned.'],
    ]);
    expect(fates(table('9', 'A pitch (of 3)'))[0]!.at(-1)).toBe('Say first what this assignment is out of.');
  });

  it('is not taken at all without a head that says who and what, or where one head could be two', () => {
    expect(plan([['Aroha Ngata', '7']]).problem).toContain('The first line must say');
    expect(
      plan([
        ['Student', 'Other'],
        ['Aroha Ngata', '7'],
      ]),
    ).toMatchObject({ problem: expect.stringContaining('No column') as string, passedOver: ['Other'] });
    expect(plan([['Student', 'First sounding', 'First sounding [10]']]).problem).toContain('more than one');
    expect(plan([]).problem).toBeDefined();
  });
});
