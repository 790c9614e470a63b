import { describe, expect, it } from 'vitest';
import { findingsIn, type Draft, type DraftRemark } from './index.ts';

let made = 0;
const remark = (change: Partial<DraftRemark> = {}): DraftRemark => ({
  ...{ id: `r${++made}`, whole: false, spoken: true, text: 'Say how you know.', unread: false },
  ...change,
});
const draft = (change: Partial<Draft> = {}): Draft => ({
  student: 'Ines Bettencourt',
  remarks: [remark({ whole: true }), remark()],
  ...{ unscored: [], parts: 3 },
  ...change,
});
const types = (drafts: Draft[]): string[][] => findingsIn(drafts).map((all) => all.map(({ type }) => type));

describe('findings before a return', () => {
  it('are none where all is well', () => {
    expect(findingsIn([draft()])).toEqual([[]]);
  });

  it('say what is missing', () => {
    expect(types([draft({ remarks: [], unscored: ['A', 'B', 'C'] })])).toEqual([['nothingSaid']]);
    expect(types([draft({ remarks: [], unscored: ['A'] })])).toEqual([['nothingSaid', 'unscored']]);
    expect(types([draft({ remarks: [remark()] })])).toEqual([['noOverall']]);
    expect(findingsIn([draft({ unscored: ['Evidence'] })])).toEqual([[{ type: 'unscored', titles: ['Evidence'] }]]);
  });

  it('name drafts that nobody has read, and remarks without words', () => {
    const remarks = [
      remark({ whole: true, id: 'a', unread: true }),
      remark({ id: 'b', text: '' }),
      remark({ id: 'c' }),
    ];
    expect(findingsIn([draft({ remarks })])).toEqual([
      [
        { type: 'unread', remarks: ['a'] },
        { type: 'wordless', remarks: ['b'] },
      ],
    ]);
    const written = remark({ whole: true, spoken: false, text: '' });
    expect(types([draft({ remarks: [written] })])).toEqual([[]]);
  });

  it('find the name of another student, but no common word and no name that both have', () => {
    const others = [draft({ student: 'Will Marsh' }), draft({ student: 'Ines Kalani' })];
    const says = (text: string) =>
      findingsIn([draft({ remarks: [remark({ whole: true, id: 'x', text })] }), ...others])[0];
    expect(says('Well seen, Will!')).toEqual([{ type: 'otherName', remark: 'x', name: 'Will' }]);
    expect(says('Kalani’s graph is better.')).toEqual([{ type: 'otherName', remark: 'x', name: 'Kalani’s' }]);
    expect(says('This will do, Ines, at the marsh.')).toEqual([]);
  });

  it('point at somebody with far fewer remarks than the others, where there are others', () => {
    const many = (count: number) => draft({ remarks: Array.from({ length: count }, () => remark({ whole: true })) });
    expect(findingsIn([many(6), many(7), many(8), many(2)])[3]).toEqual([{ type: 'few', remarks: 2, usual: 7 }]);
    expect(types([many(6), many(7), many(8), many(4)])[3]).toEqual([]);
    expect(types([many(9), many(1)])[1]).toEqual([]);
  });
});
