import { describe, expect, it } from 'vitest';
import type { Anchor } from '../anchor/index.ts';
import type { Leaf } from '../folio/index.ts';
import { numbered } from './numbered.ts';

const page = (start: number, end: number): Leaf => ({
  ...{ kind: 'page', label: 'Page', page: 1, width: 500, height: 700, texts: [], file: 0 },
  ...{ start, end },
});
const answer: Leaf = {
  ...{ kind: 'answer', label: 'Answer', question: 'q1', prompt: 'Why?', blocks: [], file: 0, start: 200, end: 250 },
};
const passage = (start: number): Anchor => ({
  ...{ type: 'passage', start, end: start + 5, quote: { exact: 'words', prefix: '', suffix: '' } },
});

describe('numbers of remarks on paper', () => {
  it('run down the work, after what is about the whole', () => {
    const remarks = (
      [
        ['late', { type: 'answer', question: 'q1' }],
        ['low on page 2', { type: 'region', leaf: 1, x: 0.1, y: 0.9, width: 0.2, height: 0.1 }],
        ['high on page 2', passage(110)],
        ['page 1', passage(40)],
        ['whole', { type: 'whole' }],
      ] as [string, Anchor][]
    ).map(([name, anchor], index) => ({ name, anchor, madeAt: `2026-03-01T10:0${index}:00Z` }));
    expect(
      numbered(remarks, [page(0, 100), page(100, 200), answer]).map(({ remark, number }) => [number, remark.name]),
    ).toEqual([
      [1, 'whole'],
      [2, 'page 1'],
      [3, 'high on page 2'],
      [4, 'low on page 2'],
      [5, 'late'],
    ]);
  });

  it('give the older of two about the same passage the lower number', () => {
    const [one, two] = [
      { anchor: passage(3), madeAt: '2026-03-01T10:05:00Z' },
      { anchor: passage(3), madeAt: '2026-03-01T09:59:00Z' },
    ];
    expect(numbered([one, two], [page(0, 100)]).map(({ remark }) => remark)).toEqual([two, one]);
  });
});
