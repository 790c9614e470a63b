import { describe, expect, it } from 'vitest';
import { folioOf, type NewLeaf } from '#core/folio';
import { folioReattacher, passageAnchor, type Anchor, type NamedFolio } from './index.ts';

const named = (leaves: NewLeaf[], files = ['f'], pictures: string[] = []): NamedFolio => ({
  folio: folioOf([{ name: 'a', format: 'pptx', title: '', leaves }]),
  files,
  pictures,
});
const slide = (label: string, text: string): NewLeaf => ({
  kind: 'slide',
  label,
  width: 100,
  height: 50,
  notes: [],
  shapes: [
    { x: 0, y: 0, width: 9, height: 9, geometry: 'none', blocks: [{ type: 'paragraph', runs: [{ text, marks: [] }] }] },
  ],
});
const box = (leaf: number): Anchor => ({ type: 'region', leaf, x: 0.1, y: 0.1, width: 0.2, height: 0.2 });
const sheet = (...rows: string[][]): NewLeaf => ({
  kind: 'sheet',
  label: 'Tides',
  rows: rows.map((row) => row.map((text) => ({ text }))),
});

const LONG = 'We counted the birds on the mud at dawn and again when the tide had turned';

describe('folioReattacher', () => {
  const old = named([slide('1', 'What we saw'), slide('2', LONG), slide('3', 'Thank you')]);

  it('keeps a box with its slide, follows the slide, and loses it with the slide', () => {
    const find = folioReattacher(old, named([slide('1', 'What we saw'), slide('2', 'New'), slide('3', LONG)]));
    expect(find(box(0))).toMatchObject({ status: 'same', anchor: box(0) });
    expect(find(box(1))).toMatchObject({ status: 'moved', anchor: box(2) });
    expect(find(box(2))).toEqual({ status: 'lost', confidence: 0.9 });
  });

  it('calls it changed where the slide says nearly the same', () => {
    const find = folioReattacher(old, named([slide('1', `${LONG} today`)]));
    expect(find(box(1))).toMatchObject({ status: 'changed', anchor: box(0) });
  });

  it('knows pictures and recordings by their bytes', () => {
    const picture: NewLeaf = { kind: 'picture', label: '', picture: 0, width: 1, height: 1 };
    const sound: NewLeaf = { kind: 'sound', label: '', duration: 9, video: false };
    const span: Anchor = { type: 'span', leaf: 1, start: 1, end: 2 };
    const before = named([picture, sound], ['bytes'], ['pixels']);
    expect(folioReattacher(before, named([sound, picture], ['bytes'], ['pixels']))(span)).toMatchObject({
      status: 'moved',
      anchor: { ...span, leaf: 0 },
    });
    const other = folioReattacher(before, named([picture, sound], ['other'], ['others']));
    expect([other(box(0)).status, other(span).status]).toEqual(['lost', 'lost']);
  });

  it('follows cells by their contents, or by the name of their row', () => {
    const cells: Anchor = { type: 'cells', leaf: 0, top: 2, left: 1, bottom: 2, right: 1 };
    const before = named([sheet(['Day', 'High'], ['Mon', '4.9'], ['Tue', '5.1'])]);
    const at = (...rows: string[][]) => folioReattacher(before, named([sheet(...rows)]))(cells);
    expect(at(['Day', 'High'], ['Mon', '4.7'], ['Tue', '5.1'])).toMatchObject({ status: 'same', anchor: cells });
    expect(at(['Day', 'High'], ['Sun', '4'], ['Mon', '4.9'], ['Tue', '5.1'])).toMatchObject({
      status: 'moved',
      anchor: { ...cells, top: 3, bottom: 3 },
    });
    expect(at(['Day', 'High'], ['Tue', '5.3'])).toMatchObject({ status: 'changed', anchor: { top: 1, bottom: 1 } });
    expect(at(['Day', 'High'], ['Wed', '5.3']).status).toBe('lost');
  });

  it('keeps an answer with its question, and words wherever they went', () => {
    const answer = (text: string): NewLeaf => ({
      kind: 'answer',
      label: '',
      question: 'q',
      prompt: '',
      blocks: [{ type: 'paragraph', runs: [{ text, marks: [] }] }],
    });
    const before = named([answer(LONG)]);
    const anchor: Anchor = { type: 'answer', question: 'q' };
    expect(folioReattacher(before, named([answer(LONG)]))(anchor).status).toBe('same');
    expect(folioReattacher(before, named([answer('Other')]))(anchor).status).toBe('changed');
    expect(folioReattacher(before, named([sheet(['x'])]))(anchor).status).toBe('lost');
    const words = passageAnchor(before.folio.text, 11, 20)!;
    expect(folioReattacher(before, named([sheet(['x']), answer(LONG)]))(words)).toMatchObject({
      status: 'same',
      anchor: { type: 'passage', start: 13, quote: { exact: 'the birds' } },
    });
    expect(folioReattacher(before, before)({ type: 'whole' }).anchor).toEqual({ type: 'whole' });
  });
});
