import MiniSearch from 'minisearch';
import { describe, expect, it } from 'vitest';
import { bankIndex, findRemarks, normalised, rarity, saturated, type Findable } from './index.ts';

const remark = (id: string, more: Partial<Findable>): Findable => ({
  ...{ id, language: 'en', name: '', description: '', tags: [], transcript: '' },
  ...more,
});
const find = (remarks: readonly Findable[], query: string): string[] =>
  findRemarks(bankIndex(remarks), query, { most: 9 });

describe('BM25', () => {
  it('is that of the worked example in Croft, Metzler, Strohman: “Search Engines”, 2010, section 7.2.2 (from memory)', () => {
    // 500,000 documents; “president” in 40,000 of them, “lincoln” in 300; they are 15 and 25 times in one of 0.9 of the usual length.
    const weight = (having: number): number => Math.log(Math.exp(rarity(500_000, having)) - 1);
    const frequency = (count: number): number => 2.2 * saturated(normalised(count, 0.9));
    expect(weight(40_000)).toBeCloseTo(2.44, 2);
    expect(weight(300)).toBeCloseTo(7.42, 2);
    expect(frequency(15)).toBeCloseTo(2.05, 2);
    expect(frequency(25)).toBeCloseTo(2.11, 2);
    expect(weight(40_000) * frequency(15) + weight(300) * frequency(25)).toBeCloseTo(20.66, 1);
  });

  it('ranks as MiniSearch does, a library for the same formula', () => {
    const vocabulary = Array.from({ length: 400 }, (_, i) => `w${i.toString(36).padStart(2, '0')}x`);
    let state = 11;
    const next = (most: number): number => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) % most;
    // A word once in a document: the two count its length alike then.
    const texts = Array.from({ length: 300 }, (_, id) => ({
      id: String(id),
      transcript: [...new Set(Array.from({ length: 5 + next(60) }, () => vocabulary[next(400)]!))].join(' '),
    }));
    const reference = new MiniSearch({ fields: ['transcript'], searchOptions: { bm25: { k: 1.2, b: 0.75, d: 0 } } });
    reference.addAll(texts);
    const index = bankIndex(texts.map(({ id, transcript }) => remark(id, { transcript, language: 'und' })));
    for (const word of vocabulary.slice(0, 60)) {
      const theirs = reference.search(word).map(({ id, score }) => ({ id: String(id), score }));
      const ours = findRemarks(index, word, { most: theirs.length });
      const scores = new Map(theirs.map(({ id, score }) => [id, score]));
      const inOurOrder = ours.map((id) => scores.get(id)!);
      expect(inOurOrder).toEqual([...inOurOrder].sort((a, b) => b - a));
      expect(ours).toHaveLength(theirs.length);
    }
  });
});

describe('findRemarks', () => {
  const bank = [
    remark('source', { name: 'Where does this come from?', tags: ['evidence'], transcript: 'Name your source.' }),
    remark('comma', { name: 'A comma is not enough', transcript: 'Put a full stop where your voice goes down.' }),
    remark('cafe', { name: 'Café', transcript: 'Order in the paragraphs.' }),
    remark('arabic', { language: 'ar', name: 'أين المصدر؟', transcript: 'اكتب من أين جاء هذا الرقم.' }),
    remark('japanese', { language: 'ja', name: '出典を書きましょう', transcript: 'この数字はどこから来ましたか。' }),
    remark('french', { language: 'fr', name: 'Trop de répétitions', transcript: 'Cherchez un autre mot.' }),
  ];

  it.each([
    ['another form', 'evidences', 'source'],
    ['another form of a verb', 'stopping', 'comma'],
    ['a word cut short', 'parag', 'cafe'],
    ['several cut short', 'ful st', 'comma'],
    ['a typing error', 'sorce', 'source'],
    ['letters that changed places', 'commma', 'comma'],
    ['two errors in a long word', 'paragrafs', 'cafe'],
    ['no accent', 'cafe', 'cafe'],
    ['an accent too many', 'sourcé', 'source'],
    ['Arabic without its article', 'مصدر', 'arabic'],
    ['Arabic with another alif and vowel signs', 'اَيْن المصدر', 'arabic'],
    ['Japanese out of the middle', '数字', 'japanese'],
    ['one Japanese sign', '典', 'japanese'],
    ['French by its singular', 'répétition', 'french'],
  ])('finds by %s', (_, query, wanted) => {
    expect(find(bank, query)[0]).toBe(wanted);
  });

  it('what is called so stands before what says so', () => {
    const two = [
      remark('says', { transcript: 'A comma here, and a comma there, and one more comma.' }),
      remark('called', { name: 'Comma', transcript: 'Read it aloud.' }),
    ];
    expect(find(two, 'comma')).toEqual(['called', 'says']);
  });

  it('all words first, then some of them', () => {
    const two = [remark('some', { name: 'comma comma' }), remark('all', { transcript: 'a stop or a comma' })];
    expect(find(two, 'comma stop')).toEqual(['all', 'some']);
  });

  it('shows only what may be shown, and nothing for nothing', () => {
    const index = bankIndex(bank);
    expect(findRemarks(index, 'comma', { most: 9, may: (id) => id !== 'comma' })).toEqual([]);
    expect(findRemarks(index, ' ?! ', { most: 9 })).toEqual([]);
    expect(findRemarks(bankIndex([]), 'comma', { most: 9 })).toEqual([]);
    expect(findRemarks(index, 'a', { most: 2 })).toHaveLength(2);
  });
});
