// @vitest-environment happy-dom
import fc from 'fast-check';
import { readdirSync } from 'node:fs';
import { flushPromises } from '@vue/test-utils';
import { describe, expect, it, vi } from 'vitest';
import { passageAnchor, type Anchor } from '#core/anchor';
import type { Folio } from '#core/folio';
import { readFolio, workOf } from '../testing/folio.ts';
import { mountInApp } from '../testing/mount.ts';
import FolioView from './FolioView.vue';
import { offsetsOf, rangeOf } from './selection.ts';

const FOLDER = 'demo/documents/';
const read = (name: string): Promise<Folio> => readFolio(FOLDER + name);
const WITHOUT_WORDS = /\.(png|jpg|webp|ogg|mp3|m4a|wav|webm|mp4)$/;

/** The work on screen, cut into pieces by some remarks that overlap. */
async function draw(folio: Folio): Promise<Element> {
  const passage = (start: number, end: number): Anchor => ({
    type: 'passage',
    start,
    end,
    quote: { exact: '', prefix: '', suffix: '' },
  });
  const marks = [
    { id: 'a', kind: 'repair' as const, anchor: passage(30, 90) },
    { id: 'b', kind: 'question' as const, anchor: passage(60, 61) },
    { id: 'c', kind: 'next' as const, anchor: passage(61, 400) },
  ];
  const { element } = mountInApp(FolioView, { work: workOf(folio), marks, focused: 'c' });
  // Some kinds of leaves are loaded when they are needed.
  await vi.dynamicImportSettled();
  await flushPromises();
  return element as Element;
}

describe.each(readdirSync(FOLDER).filter((name) => !WITHOUT_WORDS.test(name)))('a selection in %s', (name) => {
  it('and its anchor are inverse', async () => {
    const folio = await read(name);
    const root = await draw(folio);
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
    const drawn = [...(await draw(folio)).querySelectorAll('[data-start]')].map((piece) => piece.textContent).join('');
    const white = /\s/g;
    expect(drawn.replace(white, '')).toBe(folio.text.replace(white, ''));
  });
});

describe('a selection', () => {
  it('made by three clicks, from a paragraph to the start of the next, is that paragraph', async () => {
    const folio = await read('amaru-quispe.docx');
    const root = await draw(folio);
    const paragraphs = root.querySelectorAll('p.paragraph');
    const range = document.createRange();
    range.setStart(paragraphs[1]!, 0);
    range.setEnd(paragraphs[2]!, 0);
    const { start, end } = offsetsOf(root, range)!;
    expect(folio.text.slice(start, end)).toBe(paragraphs[1]!.textContent);
  });

  it('outside of the work is none', async () => {
    const root = await draw(await read('amaru-quispe.docx'));
    const other = document.createElement('p');
    other.textContent = 'elsewhere';
    document.body.append(other);
    const range = document.createRange();
    range.selectNodeContents(other);
    expect(offsetsOf(root, range)).toBeUndefined();
    expect(rangeOf(root, { start: 1e6, end: 1e6 + 1 })).toBeUndefined();
  });
});
