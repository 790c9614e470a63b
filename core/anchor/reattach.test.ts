import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { reattacher, type PassageQuery, type Reattached } from './index.ts';

const SHORE = `Six hours on a mudflat

Introduction
I sat down at the edge of the mudflat at seven in the morning, with a flask and a notebook. "Nothing happens here," my brother had said - and for an hour he was right.
The first birds came with the light. They stood in a row along the waterline and did not move until the water did.
Method
Every ten minutes I counted the birds within a hundred metres of my stone. I wrote down the kind, the number and what they were doing.
The wind was too strong for the telescope after nine, so I went closer and counted with my eyes alone.
Results
The curlews came first and left last. They put their whole bill into the mud and turned it slowly, like somebody who looks for a key in a deep pocket.
The dunlins ran. In six hours I never saw one of them stand still for longer than it takes to breathe in.
Conclusion
Nothing happens on a mudflat, if one does not sit down on it for six hours.
`;

const inNew = (revised: string, query: PassageQuery): Reattached & { words: string | undefined } => {
  const found = reattacher(SHORE, revised)(query);
  return { ...found, words: found.place && revised.slice(found.place.start, found.place.end) };
};
const find = (revised: string, exact: string) => inNew(revised, { exact });

const CURLEWS = 'The curlews came first and left last.';
const COUNT = 'Every ten minutes I counted the birds within a hundred metres of my stone.';

describe('reattacher', () => {
  it('finds every passage of an unchanged text where it was', () => {
    fc.assert(
      fc.property(fc.nat(SHORE.length - 1), fc.nat(200), (start, length) => {
        const end = Math.min(SHORE.length, start + length + 1);
        if (!/[\p{L}\p{N}]/u.test(SHORE.slice(start, end))) return;
        const { status, place } = reattacher(SHORE, SHORE)({ start, end });
        expect(status).toBe('same');
        // White space at the edges of a passage is not part of it.
        expect(SHORE.slice(place!.start, place!.end)).toBe(SHORE.slice(start, end).trim());
      }),
      { numRuns: 150 },
    );
  });

  it('takes other line breaks, quotes and dashes for the same words', () => {
    const revised = SHORE.replace(
      '"Nothing happens here," my brother had said - and',
      '“Nothing happens here,” my\nbrother had said – and',
    );
    expect(find(revised, '"Nothing happens here," my brother had said - and for an hour he was right.')).toMatchObject({
      status: 'same',
      words: '“Nothing happens here,” my\nbrother had said – and for an hour he was right.',
    });
  });

  it('does not mind a word that was hyphenated at the end of a line', () => {
    expect(find(SHORE.replace('telescope', 'tele-scope'), 'too strong for the telescope')).toMatchObject({
      words: 'too strong for the tele-scope',
    });
  });

  it('is not moved by what was put in before', () => {
    const revised = SHORE.replace('Introduction\n', 'Introduction\nFirst of all, I thank the ferry for waiting.\n');
    expect(find(revised, CURLEWS)).toMatchObject({ status: 'same', words: CURLEWS, confidence: 1 });
  });

  it('follows a paragraph that was moved, edited or not', () => {
    const paragraph = /The curlews[^\n]*\n/.exec(SHORE)![0];
    const elsewhere = SHORE.replace(paragraph, '').replace('Introduction\n', `Introduction\n${paragraph}`);
    expect(find(elsewhere, CURLEWS)).toMatchObject({ status: 'moved', words: CURLEWS });
    const edited = elsewhere.replace('came first and left last', 'came first of all and left very last');
    expect(find(edited, CURLEWS)).toMatchObject({
      status: 'changed',
      words: 'The curlews came first of all and left very last.',
    });
  });

  it('shows the new words of a passage that was edited', () => {
    const revised = SHORE.replace(
      COUNT,
      'Every five minutes I counted all birds within about a hundred metres of my stone.',
    );
    expect(find(revised, COUNT)).toMatchObject({
      status: 'changed',
      words: 'Every five minutes I counted all birds within about a hundred metres of my stone.',
    });
    expect(find(revised, 'ten')).toMatchObject({ status: 'changed', words: 'five' });
  });

  it('finds passages that were split into two, and two that became one', () => {
    const split = SHORE.replace('The dunlins ran. In six hours I', 'The dunlins ran.\n\nIn six hours, in fact, I');
    expect(find(split, 'The dunlins ran. In six hours I never saw one of them stand still')).toMatchObject({
      status: 'changed',
      words: 'The dunlins ran.\n\nIn six hours, in fact, I never saw one of them stand still',
    });
    const merged = SHORE.replace('of my stone. I wrote down', 'of my stone and wrote down');
    expect(find(merged, COUNT)).toMatchObject({ status: 'changed' });
    expect(find(merged, COUNT).words).toContain('within a hundred metres of my stone');
  });

  it('tells headings apart that are repeated elsewhere', () => {
    const revised = SHORE.replace('Six hours on a mudflat\n', 'Six hours on a mudflat\n\nResults\nSee below.\n');
    expect(find(revised, 'Results').place!.start).toBe(revised.lastIndexOf('Results\n'));
  });

  it.each([
    ['a sentence', 'The first birds came with the light.'],
    ['a paragraph', /The wind was[^\n]*/.exec(SHORE)![0]],
    ['a heading', 'Conclusion'],
  ])('loses %s that was taken out, rather than to put it anywhere', (_, words) => {
    expect(find(SHORE.replace(words, ''), words)).toMatchObject({ status: 'lost', words: undefined });
  });

  it('loses a sentence in whose place another was written', () => {
    const revised = SHORE.replace(CURLEWS, 'The tide was very low that day, as the almanac had said.');
    expect(find(revised, CURLEWS).status).toBe('lost');
  });

  it('gives the words at the edges of what was taken out to the sentence that they belong to', () => {
    const sentences = SHORE.split(/(?<=\.)\s+/);
    const [right, wind] = ['he was right.', 'The wind was too strong'].map((part) =>
      sentences.find((one) => one.includes(part)),
    );
    const found = find(`${right!} ${wind!}`, wind!);
    expect([found.status, found.words]).toEqual(['same', wind]);
  });

  it('keeps of any text only what is still there', () => {
    const sentences = SHORE.split(/(?<=\.)\s+/).filter((sentence) => sentence.split(' ').length > 5);
    fc.assert(
      fc.property(fc.subarray(sentences), (kept) => {
        const at = reattacher(sentences.join(' '), kept.join(' '));
        for (const sentence of sentences) {
          const { place } = at({ exact: sentence });
          const words = place && kept.join(' ').slice(place.start, place.end);
          expect(words).toBe(kept.includes(sentence) ? sentence : undefined);
        }
      }),
      { numRuns: 40 },
    );
  });

  const LIST = ['Bring a flask and a warm coat', 'Check the tide table at the harbour', 'Leave before the water turns'];

  it.each([
    ['its end', 'Check the tide times at the quay'],
    ['its beginning', 'Look up the tide table at the harbour'],
    ['half of it', 'Check the tide table and the clock'],
    ['its length', 'Check the tide and weather tables twice at the harbour'],
  ])('keeps to the entry of a list of which %s was revised, whatever words the next one has', (_, revised) => {
    for (const added of [
      'ask the harbour master about the wind',
      'Ask at the harbour office about fog',
      'rest',
      'A tide is a wave.',
    ]) {
      for (const beside of [
        [revised, added],
        [added, revised],
      ]) {
        const next = [LIST[0], ...beside, LIST[2], ''].join('\n');
        const items = new Set([...next.matchAll(/^/gmu)].map(({ index }) => index));
        const { place } = reattacher(`${LIST.join('\n')}\n`, next, { next: items })({ exact: LIST[1]! });
        expect(next.slice(place!.start, place!.end)).toBe(revised);
      }
    }
  });

  it('follows an entry of a list that was made into two', () => {
    const next = [LIST[0], 'Check the tide table', 'Ask at the harbour', LIST[2], ''].join('\n');
    const { place } = reattacher(`${LIST.join('\n')}\n`, next)({ exact: LIST[1]! });
    expect(next.slice(place!.start, place!.end)).toBe('Check the tide table\nAsk at the harbour');
  });

  it('lets the quote decide where the offsets are missing or wrong, and the words around it where it stands twice', () => {
    const twice = `${SHORE}Afterwards\nThe dunlins ran.\n`;
    const at = reattacher(twice, twice);
    expect(at({ start: 3, end: 9, exact: CURLEWS }).place!.start).toBe(twice.indexOf(CURLEWS));
    expect(at({ exact: 'The dunlins ran.', prefix: 'Afterwards\n' }).place!.start).toBe(
      twice.lastIndexOf('The dunlins'),
    );
    expect(at({ exact: 'The dunlins ran.', suffix: ' In six' }).place!.start).toBe(twice.indexOf('The dunlins'));
    expect(at({ exact: 'never written' })).toEqual({ status: 'lost', confidence: 0 });
    expect(at({ start: 5, end: 2 })).toEqual({ status: 'lost', confidence: 0 });
  });

  it('reads scripts without spaces, and signs beyond the first plane', () => {
    const old = '潮は一日に二回変わる。🦀 は泥の中に住む。鳥は光と共に来た。';
    const revised = '鳥は光と共に来た。潮は一日に二回も変わる。🦀 は泥の中に住む。';
    const found = reattacher(old, revised)({ exact: '潮は一日に二回変わる' });
    expect([found.status, revised.slice(found.place!.start, found.place!.end)]).toEqual([
      'changed',
      '潮は一日に二回も変わる',
    ]);
  });

  it('answers about empty texts, and passages without words', () => {
    expect(reattacher('', '')({ exact: 'x' }).status).toBe('lost');
    expect(reattacher('a b', '')({ start: 0, end: 1 }).status).toBe('lost');
    expect(reattacher('one *** two', 'one and *** two')({ exact: '***' })).toMatchObject({
      place: { start: 8, end: 11 },
    });
  });
});
