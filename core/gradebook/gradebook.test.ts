import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  hiddenBy,
  hiddenSentence,
  isNamed,
  NO_TERM,
  readBlock,
  readEntry,
  WHOLE_GRADEBOOK,
  writeBlock,
  type GradebookFilter,
} from './index.ts';

describe('what is typed into a cell', () => {
  it.each([
    ['7.5', { points: 750 }],
    [' 7,5 ', { points: 750 }],
    ['0', { points: 0 }],
    ['', { points: null }],
    ['80%', { points: 2000 }],
    ['33,33 %', { points: 833 }],
    ['m', { flag: 'missing' }],
    ['Excused', { flag: 'excused' }],
    ['inc', { flag: 'incomplete' }],
  ])('“%s” is understood', (text, entry) => expect(readEntry(text, 2500)).toEqual(entry));

  it.each(['7o', 'l0', '1.234', '=1+1', '-1', '1e3', '1001', 'minus', '7 8'])(
    '“%s” is refused with a sentence',
    (text) => expect(readEntry(text, 2500)).toEqual({ problem: expect.stringMatching(/\.$/u) as string }),
  );

  it('is no share of nothing', () => {
    expect(readEntry('80%', null)).toEqual({ problem: 'Say first what this assignment is out of.' });
  });
});

describe('a block of cells', () => {
  it('comes back from the clipboard as it went there (property)', () => {
    const rest = fc.string({ unit: fc.constantFrom(...'a7"\t\n ,.'), maxLength: 6 });
    const cell = fc.oneof(
      fc.constant(''),
      fc.tuple(fc.constantFrom('a', '7'), rest).map((parts) => parts.join('')),
    );
    const block = fc
      .integer({ min: 1, max: 4 })
      .chain((width) =>
        fc.array(fc.array(cell, { minLength: width, maxLength: width }), { minLength: 1, maxLength: 6 }),
      )
      // One empty cell is nothing at all.
      .filter((rows) => rows.flat().some((cell) => cell !== ''));
    fc.assert(
      fc.property(block, (rows) => {
        const last = rows.at(-1)!;
        fc.pre(last.some((cell) => cell !== ''));
        expect(readBlock(writeBlock(rows))).toEqual(rows);
      }),
    );
  });

  it('is what spreadsheets put there: tabs, quotes, a last line end, a byte order mark', () => {
    expect(readBlock('\ufeff7\t8,5\r\n\t"two\nlines"\r\n')).toEqual([
      ['7', '8,5'],
      ['', 'two\nlines'],
    ]);
  });

  it('never becomes a formula elsewhere', () => expect(writeBlock([['=1+1', '7']])).toBe('"\'=1+1"\t7'));
});

describe('a filter', () => {
  const log = { term: 'Autumn', category: 'Logs', dueAt: '2026-10-02T17:30:00Z' };
  const dayOf = (instant: string): string => instant.slice(0, 10);
  const by = (filter: Partial<GradebookFilter>, one: Parameters<typeof hiddenBy>[0] = log) =>
    hiddenBy(one, { ...WHOLE_GRADEBOOK, ...filter }, dayOf);

  it('hides nothing of the whole', () => expect(by({})).toBeUndefined());

  it('says by what something is hidden', () => {
    expect(by({ term: 'Winter' })).toBe('term');
    expect(by({ term: NO_TERM })).toBe('term');
    expect(by({ term: NO_TERM }, { ...log, term: null })).toBeUndefined();
    expect(by({ category: 'Letters' })).toBe('category');
    expect([by({ from: '2026-10-03' }), by({ to: '2026-10-01' })]).toEqual(['dates', 'dates']);
    expect(by({ from: '2026-10-02', to: '2026-10-02' })).toBeUndefined();
    expect(by({ to: '2027-01-01' }, { ...log, dueAt: null })).toBe('dates');
  });

  it('shows what is due on a day within its bounds, whichever of them is set', () => {
    expect([by({ term: 'Autumn' }), by({ category: 'Logs' }), by({ from: '2026-10-01' })]).toEqual(
      Array(3).fill(undefined),
    );
    expect([by({ to: '2026-10-02' }), by({}, { ...log, dueAt: null })]).toEqual([undefined, undefined]);
    expect([by({ from: '2026-10-01', to: '2026-10-01' }), by({ from: '2026-10-03', to: '2026-10-05' })]).toEqual([
      ...['dates', 'dates'],
    ]);
  });

  it('says so in a sentence with a count', () => {
    expect(hiddenSentence([undefined, undefined])).toBeUndefined();
    expect(hiddenSentence(['term', undefined, 'dates', 'dates'])).toBe(
      '3 of 4 assignments are hidden by the term and the dates.',
    );
    expect(hiddenSentence(['term', 'category', 'dates', undefined])).toBe(
      '3 of 4 assignments are hidden by the term, the category and the dates.',
    );
    expect(hiddenSentence(['dates', 'dates'])).toBe('All 2 assignments are hidden by the dates.');
    expect(hiddenSentence(['category'])).toBe('All 1 assignment is hidden by the category.');
  });

  it('finds people by the beginnings of their names, with or without marks', () => {
    expect(isNamed('Mirza Hadžić', 'hadz mir')).toBe(true);
    expect(isNamed('Mirza Hadžić', 'irza')).toBe(false);
    expect(isNamed('Mirza Hadžić', '')).toBe(true);
    expect(isNamed('Mirza  Hadžić', 'mirza  hadžić')).toBe(true);
    expect(isNamed('Mirza Hadžić', 'mirza krol')).toBe(false);
  });
});
