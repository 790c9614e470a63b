// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import fc from 'fast-check';
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { passageAnchor } from '#core/anchor';
import type { Folio } from '#core/folio';
import type { Work } from '#contract/submissions';
import { readDocument } from '../../../server/documents/read.ts';
import FolioView from './FolioView.vue';
import { offsetsOf, rangeOf } from './selection.ts';

const FOLDER = 'demo/documents/';
const ID = '6f0b3c0e-7d55-4f58-9a52-0d0f0a1b2c3d';

const read = async (name: string): Promise<Folio> => (await readDocument(readFileSync(FOLDER + name), name)).folio;

const workOf = (folio: Folio): Work => ({
  id: ID,
  version: 1,
  newestVersion: 1,
  student: { id: ID, name: 'Student' },
  fileName: 'essay.docx',
  handedInAt: '2026-01-01T00:00:00Z',
  late: false,
  assignment: { id: ID, title: '', course: '', dueAt: null },
  folio,
});

/** The essay on screen, cut into pieces by some remarks that overlap. */
function draw(folio: Folio): Element {
  const stretches = [
    { id: 'a', kind: 'repair' as const, start: 30, end: 90 },
    { id: 'b', kind: 'question' as const, start: 60, end: 61 },
    { id: 'c', kind: 'next' as const, start: 61, end: 400 },
  ];
  return mount(FolioView, { props: { work: workOf(folio), stretches, focused: 'c' } }).element as Element;
}

describe.each(readdirSync(FOLDER))('a selection in %s', (name) => {
  it('and its anchor are inverse', async () => {
    const folio = await read(name);
    const root = draw(folio);
    const { text } = folio;
    fc.assert(
      fc.property(fc.nat(text.length), fc.nat(text.length), (a, b) => {
        const anchor = passageAnchor(text, Math.min(a, b), Math.max(a, b));
        if (!anchor) return;
        const { start, end } = anchor;
        const range = rangeOf(root, { start, end })!;
        expect(offsetsOf(root, range)).toEqual({ start, end });
        // What is drawn there are the words of the quote; line ends between blocks are not drawn.
        expect(range.toString().replace(/\s/g, '')).toBe(anchor.quote.exact.replace(/\s/g, ''));
      }),
      { numRuns: 25 },
    );
  });

  it('draws every character once, numbering and pictures none', async () => {
    const folio = await read(name);
    const drawn = [...draw(folio).querySelectorAll('[data-start]')].map((piece) => piece.textContent).join('');
    expect(drawn).toBe(folio.text.replace(/\n/g, ''));
  });
});

describe('a selection', () => {
  it('made by three clicks, from a paragraph to the start of the next, is that paragraph', async () => {
    const folio = await read('amaru-quispe.docx');
    const root = draw(folio);
    const paragraphs = root.querySelectorAll('p');
    const range = document.createRange();
    range.setStart(paragraphs[1]!, 0);
    range.setEnd(paragraphs[2]!, 0);
    const { start, end } = offsetsOf(root, range)!;
    expect(folio.text.slice(start, end)).toBe(paragraphs[1]!.textContent);
  });

  it('outside of the work is none', async () => {
    const root = draw(await read('amaru-quispe.docx'));
    const other = document.createElement('p');
    other.textContent = 'elsewhere';
    document.body.append(other);
    const range = document.createRange();
    range.selectNodeContents(other);
    expect(offsetsOf(root, range)).toBeUndefined();
    expect(rangeOf(root, { start: 1e6, end: 1e6 + 1 })).toBeUndefined();
  });
});
