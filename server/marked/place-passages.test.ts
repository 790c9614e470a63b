import fc from 'fast-check';
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import { passageAnchor } from '#core/anchor';
import { folioOf, type Folio } from '#core/folio';
import { DEFAULT_KEY } from '#core/margin';
import type { Mark } from '#core/marked';
import type { Remark } from '../../contract/remarks.ts';
import { NO_WORDS } from '../../contract/said.ts';
import { readDocument } from '../documents/read.ts';
import { marksOf } from './marks.ts';
import { placePassages } from './place-passages.ts';

const ID = '6f0b3c0e-7d55-4f58-9a52-0d0f0a1b2c3d';

interface Word {
  text: string;
  left: number;
  right: number;
  middle: number;
}

/** The words of the first page as Poppler finds and measures them, in points. */
function popplerWords(file: string): Word[] {
  const page = execFileSync('pdftotext', ['-bbox', '-l', '1', file, '-'], { encoding: 'utf8' });
  return [...page.matchAll(/<word xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">([^<]*)</gu)].map(
    ([, left, top, right, bottom, text]) => ({
      ...{ text: text!.replaceAll('&amp;', '&'), left: Number(left), right: Number(right) },
      middle: (Number(top) + Number(bottom)) / 2,
    }),
  );
}

type Highlight = Mark & { type: 'highlight' };

/** Passages from one offset to another, as they are highlighted. */
async function highlights(folio: Folio, pdf: Uint8Array, passages: readonly [number, number][]): Promise<Highlight[]> {
  const remarks = passages.map(([start, end]): Remark => ({
    ...{
      ...NO_WORDS,
      id: ID,
      author: { id: ID, name: 'Tamsin Adeyemi' },
      kind: 'repair',
      madeAt: '2026-03-01T10:00:00Z',
    },
    ...{ anchor: passageAnchor(folio.text, start, end)!, recording: null, file: null, takenAt: null },
    ...{ dealtAt: null, settled: null, replies: [] },
  }));
  const marks = await placePassages(marksOf(folio, 0, remarks, DEFAULT_KEY), pdf);
  return marks.filter((mark): mark is Highlight => mark.type === 'highlight');
}

const edgesOf = ({ quads }: { quads: readonly (readonly (readonly [number, number])[])[] }) =>
  quads.map((quad) => {
    const [xs, ys] = [quad.map(([x]) => x), quad.map(([, y]) => y)];
    return { left: Math.min(...xs), right: Math.max(...xs), top: Math.min(...ys), bottom: Math.max(...ys) };
  });

/** How far a letter's edge may be from where Poppler has it, in points: less than half of a narrow letter. */
const NEAR = 1.2;

// Printed by Chromium from invented text on pages of three widths: justified, bold and slanted words, ligatures, wide-set letters,
// small print, and a line of Arabic.
describe.each([60, 105, 160])('a passage in a PDF whose lines are %i mm wide', async (wide) => {
  const file = fileURLToPath(new URL(`./fixtures/printed-${wide}.pdf`, import.meta.url));
  const pdf = readFileSync(file);
  const folio = folioOf([(await readDocument(pdf, 'printed.pdf')).file]);
  const theirs = popplerWords(file);
  const words = [...folio.text.matchAll(/\S+/gu)].map(({ 0: text, index }) => ({ text, start: index }));

  it('of one word covers that word as Poppler measures it', async () => {
    const known = words.filter(
      ({ text }) =>
        // Letters that stand alone are found in many places.
        text.length > 1 && theirs.some((word) => word.text.normalize('NFKC') === text.normalize('NFKC')),
    );
    expect(known.length).toBeGreaterThan(words.filter(({ text }) => text.length > 1).length * 0.9);
    const marks = await highlights(
      folio,
      pdf,
      known.map(({ text, start }) => [start, start + text.length]),
    );
    expect(marks).toHaveLength(known.length);
    known.forEach(({ text }, index) => {
      const edges = edgesOf(marks[index]!);
      // One piece, or several that touch: a ligature is a piece of its own.
      edges.slice(1).forEach((edge, index) => expect(edge.left - edges[index]!.right, text).toBeLessThan(NEAR));
      const [{ left, top, bottom }, { right }] = [edges[0]!, edges.at(-1)!];
      const fits = theirs.some(
        (word) =>
          word.text.normalize('NFKC') === text.normalize('NFKC') &&
          Math.abs(word.left - left) < NEAR &&
          Math.abs(word.right - right) < NEAR &&
          word.middle > top &&
          word.middle < bottom,
      );
      expect(fits, `${text} from ${left} to ${right}`).toBe(true);
    });
  });

  it('of several lines covers its words and no others', async () => {
    const latin = theirs.filter(({ text }) => !/\p{Script=Arabic}/u.test(text));
    const count = new Map<string, number>();
    for (const { text } of latin) count.set(text, (count.get(text) ?? 0) + 1);
    const unique = words.filter(({ text }) => count.get(text) === 1);
    await fc.assert(
      fc.asyncProperty(fc.nat(unique.length - 1), fc.nat(unique.length - 1), async (one, other) => {
        const [first, last] = [unique[Math.min(one, other)]!, unique[Math.max(one, other)]!];
        const [mark] = await highlights(folio, pdf, [[first.start, last.start + last.text.length]]);
        const edges = edgesOf(mark!);
        const under = latin.filter(({ left, right, middle }) =>
          edges.some(
            (edge) =>
              edge.top < middle &&
              edge.bottom > middle &&
              (left + right) / 2 > edge.left &&
              (left + right) / 2 < edge.right,
          ),
        );
        const [from, to] = [first, last].map(({ text }) => latin.findIndex((word) => word.text === text));
        expect(under.map(({ text }) => text)).toEqual(latin.slice(from, to! + 1).map(({ text }) => text));
      }),
      { numRuns: 40 },
    );
  });
});
