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

describe('a table of grades', () => {
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
