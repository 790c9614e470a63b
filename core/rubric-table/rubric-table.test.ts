import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { readRubricTable, rubricCsv, STARTERS, type PlainCriterion } from './index.ts';

const text = fc
  .string({ unit: 'grapheme', minLength: 1, maxLength: 20 })
  .map((value) => value.trim())
  .filter(Boolean);
const level = fc.record({ title: text, description: text, points: fc.integer({ min: 0, max: 100_000 }) });
const rubric = fc.uniqueArray(
  fc.record(
    {
      ...{ title: text, description: text, levels: fc.array(level, { minLength: 1, maxLength: 4 }) },
      ...{ weight: fc.integer({ min: 0, max: 10_000 }), bonus: fc.constant(true) },
    },
    { requiredKeys: ['title', 'description', 'levels'] },
  ),
  { minLength: 1, maxLength: 4, selector: ({ title }) => title },
);

describe('a rubric as a table', () => {
  it('comes back as it went out, whatever stands in its cells', () => {
    fc.assert(
      fc.property(rubric, (one: PlainCriterion[]) => {
        expect(readRubricTable(rubricCsv(one))).toEqual({ rubric: one, faults: [] });
      }),
    );
    for (const { rubric: starter } of STARTERS) expect(readRubricTable(rubricCsv(starter)).rubric).toEqual(starter);
  });

  it('is CSV that a spreadsheet reads: RFC 4180, section 2', () => {
    const [{ rubric: first }] = STARTERS as [(typeof STARTERS)[number]];
    const csv = rubricCsv([{ ...first[0]!, title: 'Says "why", or not\nat all' }]);
    expect(csv.split('\r\n')[0]).toBe('criterion,description,level,level description,points');
    expect(csv).toContain('"Says ""why"", or not\nat all"');
    expect(Papa.parse(csv).errors).toEqual([]);
  });

  it('is read from a grid that was pasted from a spreadsheet', () => {
    const grid = [
      '\tNot yet (0)\tSecure: 2,5 points\tStrong 5',
      'Claim\tNone\tOne\tA new one',
      '\t\t\t',
      'Path\tA heap\tAn order',
    ];
    expect(readRubricTable(grid.join('\n'))).toEqual({
      faults: [],
      rubric: [
        {
          ...{ title: 'Claim', description: '' },
          levels: [
            { title: 'Not yet', description: 'None', points: 0 },
            { title: 'Secure', description: 'One', points: 250 },
            { title: 'Strong', description: 'A new one', points: 500 },
          ],
        },
        {
          ...{ title: 'Path', description: '' },
          levels: [
            { title: 'Not yet', description: 'A heap', points: 0 },
            { title: 'Secure', description: 'An order', points: 250 },
            { title: 'Strong', description: '', points: 500 },
          ],
        },
      ],
    });
    expect(readRubricTable(';Low;High\nClaim;a;b').rubric[0]!.levels.map(({ points }) => points)).toEqual([0, 100]);
  });

  it('says which lines cannot be understood', () => {
    const list = [
      'criterion,description,level,level description,points',
      'A,,,,1',
      'A,,L,,many',
      ',,L,,1',
      'A,,L,,-1',
      'A,,L,,2',
    ];
    expect(readRubricTable(list.join('\n'))).toMatchObject({
      rubric: [{ title: 'A', levels: [{ points: 200 }] }],
      faults: [
        { line: 2, why: 'noLevel' },
        { line: 3, why: 'points' },
        { line: 4, why: 'noCriterion' },
        { line: 5, why: 'points' },
      ],
    });
    expect(readRubricTable('').faults).toEqual([{ line: 1, why: 'noLevel' }]);
    expect(readRubricTable(';High\n;x').faults).toEqual([{ line: 2, why: 'noCriterion' }]);
  });
});
