import { PDFDocument, PDFName, degrees } from '@cantoo/pdf-lib';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { packPoints, SURFACE_UNITS, type Stroke } from '#core/ink';
import { folioOf } from '#core/folio';
import { DEFAULT_KEY } from '#core/margin';
import { passageAnchor, type Anchor } from '#core/anchor';
import type { Remark } from '../../contract/remarks.ts';
import { NO_WORDS } from '../../contract/said.ts';
import type { Track } from '../../contract/talk.ts';
import { readDocument } from '../documents/read.ts';
import { CannotMark, toUserSpace, withPages } from '#core/annotated-pdf';
import type { Mark } from '#core/marked';
import { markFile } from './mark-file.ts';
import { marksOf } from './marks.ts';

const ID = '6f0b3c0e-7d55-4f58-9a52-0d0f0a1b2c3d';
const NOTES = readFileSync(new URL('../documents/fixtures/notes.pdf', import.meta.url));
let folder: string;
beforeAll(() => (folder = mkdtempSync(path.join(tmpdir(), 'vivid-marked-'))));
afterAll(() => rmSync(folder, { recursive: true }));

const remark = (anchor: Anchor, more: Partial<Remark> = {}): Remark => ({
  ...NO_WORDS,
  ...{ id: ID, author: { id: ID, name: 'Tamsin Adeyemi' }, kind: 'repair', anchor, madeAt: '2026-03-01T10:00:00Z' },
  ...{ recording: null, file: null, takenAt: null, dealtAt: null, settled: null, replies: [], ...more },
});
const stroke = (tool: Stroke['tool'], ...places: [number, number][]): Stroke => ({
  ...{ tool, colour: 'repair', width: 60 },
  points: packPoints(
    places.map(([x, y], at) => ({
      x: x * SURFACE_UNITS,
      y: y * SURFACE_UNITS,
      pressure: at > 0 ? 0.9 : 0.5,
      at: at / 50,
    })),
  ),
});

/** Empty pages: as they are, turned, and cropped. */
async function blank(turns: number[], box?: [number, number, number, number]): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  for (const turn of turns) {
    const page = document.addPage([400, 600]);
    page.setRotation(degrees(turn));
    if (box) page.setCropBox(...box);
  }
  return document.save();
}

const loaded = (bytes: Uint8Array) => getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;

interface Listed {
  subtype: string;
  contents: string;
  rect: number[];
  title: string;
}
/** The annotations of a page as another reader finds them. */
async function listed(bytes: Uint8Array, page = 1): Promise<Listed[]> {
  const annotations = (await (await (await loaded(bytes)).getPage(page)).getAnnotations()) as {
    subtype: string;
    rect: number[];
    contentsObj?: { str: string };
    titleObj?: { str: string };
  }[];
  return annotations
    .filter(({ titleObj }) => titleObj)
    .map(({ subtype, rect, contentsObj, titleObj }) => ({
      ...{ subtype, rect, contents: contentsObj?.str ?? '', title: titleObj!.str },
    }));
}

/** A page as Poppler draws it, 72 pixels to the inch. */
async function drawn(bytes: Uint8Array, page = 1) {
  const file = path.join(folder, 'marked.pdf');
  writeFileSync(file, bytes);
  execFileSync('pdftoppm', ['-r', '72', '-f', String(page), '-l', String(page), '-cropbox', '-singlefile', file, file]);
  // A portable pixmap: "P6", width and height, the largest value, then three bytes a pixel.
  const bytesOfImage = readFileSync(`${file}.ppm`);
  const [header, width, height] = /^P6\s+(\d+)\s+(\d+)\s+255\s/.exec(bytesOfImage.toString('latin1', 0, 40))!;
  const from = header.length;
  return {
    ...{ width: Number(width), height: Number(height) },
    at: (x: number, y: number): number[] => {
      const start = from + (y * Number(width) + x) * 3;
      return [...bytesOfImage.subarray(start, start + 3)];
    },
  };
}
const isVermilion = ([red, green, blue]: number[]): boolean => red! > 150 && green! < 120 && blue! < 120;

describe('the place of a mark', () => {
  it.each([0, 90, 180, 270, -90])(
    'on a page turned by %i degrees is where PDF.js has it, cropped or not',
    async (turn) => {
      for (const box of [undefined, [50, 40, 300, 500] as [number, number, number, number]]) {
        const page = await (await loaded(await blank([turn], box))).getPage(1);
        const viewport = page.getViewport({ scale: 1 });
        const [x, y, width, height] = box ?? [0, 0, 400, 600];
        const ours = toUserSpace({ box: [x, y, x + width, y + height], rotate: turn, userUnit: 1 });
        for (const place of [
          [0, 0],
          [100, 30],
          [viewport.width, viewport.height],
        ] as [number, number][]) {
          const theirs = viewport.convertToPdfPoint(...place) as [number, number];
          expect(ours(place)[0]).toBeCloseTo(theirs[0]);
          expect(ours(place)[1]).toBeCloseTo(theirs[1]);
        }
      }
    },
  );
});

describe('a marked PDF', () => {
  const folioOfNotes = async () => folioOf([(await readDocument(NOTES, 'notes.pdf')).file]);

  it('has every remark at its place, with its words, for another reader', async () => {
    const folio = await folioOfNotes();
    const word = /\p{L}{4,}/u.exec(folio.text)!;
    const region = { type: 'region' as const, leaf: 0, x: 0.5, y: 0.5, width: 0.2, height: 0.1 };
    const marks = marksOf(
      folio,
      0,
      [
        remark({ type: 'whole' }, { text: 'Ταμ says: 潮 goes out. “Well”' }),
        remark(passageAnchor(folio.text, word.index, word.index + word[0].length)!, { suggestion: 'tide' }),
        remark(region, { text: 'Here.' }),
        remark(region, { text: 'Look.', ink: [stroke('pen', [0.5, 0.5], [0.6, 0.52], [0.7, 0.5])] }),
        remark({ type: 'span', leaf: 0, start: 0, end: 1 }, { text: 'Of a sound, which is no page.' }),
      ],
      DEFAULT_KEY,
    );
    const list = await listed(await markFile({ bytes: NOTES, format: 'pdf', marks, copy: false }));
    expect(list.map(({ subtype }) => subtype)).toEqual(['Text', 'Highlight', 'Square', 'Ink']);
    expect(list.map(({ contents }) => contents)).toEqual([
      'Repair. Ταμ says: 潮 goes out. “Well”',
      'Repair. Instead: “tide”',
      'Repair. Here.',
      'Repair. Look.',
    ]);
    expect(new Set(list.map(({ title }) => title))).toEqual(new Set(['Tamsin Adeyemi']));
    // Over the word as PDF.js measures it.
    const page = await (await loaded(NOTES)).getPage(1);
    const leaf = folio.leaves[0]!;
    if (leaf.kind !== 'page') throw new Error('It is a page');
    const viewport = page.getViewport({ scale: 1 });
    const [left, , right] = list[1]!.rect as [number, number, number, number];
    expect(right - left).toBeLessThan(viewport.width / 2);
    expect(leaf.texts.some(({ x, width }) => left > x - 4 && right < x + width + 4)).toBe(true);
  });

  const INK: [Stroke['tool'], [number, number][], [number, number]][] = [
    [
      'pen',
      [
        [0.25, 0.5],
        [0.4, 0.5],
        [0.75, 0.5],
      ],
      [0.5, 0.5],
    ],
    [
      'line',
      [
        [0.25, 0.5],
        [0.75, 0.5],
      ],
      [0.5, 0.5],
    ],
    [
      'arrow',
      [
        [0.25, 0.5],
        [0.75, 0.5],
      ],
      [0.5, 0.5],
    ],
    [
      'rectangle',
      [
        [0.25, 0.3],
        [0.75, 0.5],
      ],
      [0.25, 0.4],
    ],
    [
      'ellipse',
      [
        [0.25, 0.3],
        [0.75, 0.5],
      ],
      [0.25, 0.4],
    ],
  ];
  it.each(INK)(
    'shows a %s where it was drawn, on pages of every turn, drawn by Poppler',
    async (tool, places, [x, y]) => {
      const turns = [0, 90, 180, 270];
      for (const box of [undefined, [50, 40, 300, 500] as [number, number, number, number]]) {
        const bytes = await blank(turns, box);
        const folio = folioOf([(await readDocument(Buffer.from(bytes), 'blank.pdf')).file]);
        const marks = turns.flatMap((_, leaf) =>
          marksOf(
            folio,
            0,
            [
              remark(
                { type: 'region', leaf, x: 0.2, y: 0.4, width: 0.6, height: 0.3 },
                { ink: [stroke(tool, ...places)] },
              ),
            ],
            DEFAULT_KEY,
          ),
        );
        const marked = await markFile({ bytes, format: 'pdf', marks, copy: false });
        for (const [index] of turns.entries()) {
          const { width, at } = await drawn(marked, index + 1);
          expect(isVermilion(at(Math.round(x * width), Math.round(y * width)))).toBe(true);
          expect(at(Math.round(0.1 * width), Math.round(0.1 * width))).toEqual([255, 255, 255]);
        }
      }
    },
    60_000,
  );

  it('is refused where it is signed, and given as a copy to whoever wants that', async () => {
    const document = await PDFDocument.create();
    document.addPage();
    document.catalog.set(PDFName.of('AcroForm'), document.context.obj({ SigFlags: 3, Fields: [] }));
    const bytes = await document.save();
    const marks: Mark[] = [
      { type: 'note', page: 0, place: [9, 9], by: 'A', at: '2026-01-01T00:00:00Z', colour: '#22201C', words: 'x' },
    ];
    await expect(markFile({ bytes, format: 'pdf', marks, copy: false })).rejects.toThrow(new CannotMark('protected'));
    expect(await listed(await markFile({ bytes, format: 'pdf', marks, copy: true }))).toHaveLength(1);
  });

  it('is refused where it is locked against changes, and a copy can be read by anybody', async () => {
    const document = await PDFDocument.create();
    document.addPage([400, 600]);
    document.encrypt({ ownerPassword: 'the author', permissions: { modifying: false } });
    const bytes = await document.save();
    const marks: Mark[] = [
      {
        type: 'note',
        page: 0,
        place: [9, 9],
        by: 'A',
        at: '2026-01-01T00:00:00Z',
        colour: '#22201C',
        words: 'Read me',
      },
    ];
    await expect(markFile({ bytes, format: 'pdf', marks, copy: false })).rejects.toThrow(new CannotMark('protected'));
    const copy = await markFile({ bytes, format: 'pdf', marks, copy: true });
    expect((await listed(copy)).map(({ contents }) => contents)).toEqual(['Read me']);
    expect((await loaded(await withPages(copy, []))).numPages).toBe(1);
    expect((await drawn(copy)).width).toBe(400);
  });

  it('is refused where the file is none', async () => {
    const broken = markFile({ bytes: Buffer.from('%PDF-1.7 nothing'), format: 'pdf', marks: [], copy: false });
    await expect(broken).rejects.toThrow(CannotMark);
  });

  it('is made of a picture, as large as it is', async () => {
    const bytes = readFileSync(new URL('../../demo/documents/oyuna-batbayar.png', import.meta.url));
    const folio = folioOf([(await readDocument(bytes, 'sketch.png')).file]);
    const ink = [stroke('line', [0.25, 0.3], [0.75, 0.3])];
    const anchor = { type: 'region' as const, leaf: 0, x: 0.2, y: 0.4, width: 0.6, height: 0.2 };
    const marks = marksOf(folio, 0, [remark(anchor, { ink })], DEFAULT_KEY);
    const picture = folio.leaves[0] as { width: number; height: number };
    const marked = await markFile({ bytes, format: 'png', size: picture, marks, copy: false });
    const { width, height, at } = await drawn(marked);
    expect([width, height]).toEqual([picture.width, picture.height]);
    expect(isVermilion(at(width / 2, Math.round(0.3 * width)))).toBe(true);
  });

  it('grows by the free paper beside a page on which something was written', async () => {
    const bytes = await blank([0]);
    const { file } = await readDocument(Buffer.from(bytes), 'blank.pdf');
    const ink = [stroke('line', [0.5, 0.5], [1.3, 0.5])];
    const anchor = { type: 'region' as const, leaf: 0, x: 0.5, y: 0.3, width: 0.5, height: 0.1 };
    const marks = marksOf(folioOf([file]), 0, [remark(anchor, { ink })], DEFAULT_KEY);
    const { width, height, at } = await drawn(await markFile({ bytes, format: 'pdf', marks, copy: false }));
    expect(width).toBeGreaterThan(1.3 * 400);
    expect(height).toBe(600);
    expect(isVermilion(at(500, 200))).toBe(true);
  });

  it('has what was drawn in a talk-through, but not what was rubbed out', async () => {
    const bytes = await blank([0]);
    const { file } = await readDocument(Buffer.from(bytes), 'blank.pdf');
    const talk: Track = [
      { type: 'stroke', at: 1, placed: { leaf: 0, stroke: stroke('line', [0.1, 0.2], [0.9, 0.2]) } },
      { type: 'stroke', at: 2, placed: { leaf: 0, stroke: stroke('line', [0.1, 0.4], [0.9, 0.4]) } },
      { type: 'erase', at: 3, stroke: 1 },
    ];
    const marks = marksOf(folioOf([file]), 0, [remark({ type: 'whole' }, { talk })], DEFAULT_KEY);
    const { at } = await drawn(await markFile({ bytes, format: 'pdf', marks, copy: false }));
    expect([at(200, 80), at(200, 160)].map(isVermilion)).toEqual([true, false]);
  });

  const read = (bytes: Uint8Array): string => {
    const file = path.join(folder, 'read.pdf');
    writeFileSync(file, bytes);
    return execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
  };

  it('has numbers that Poppler reads, in the order of the page, on pages of every turn', async () => {
    const bytes = await blank([0, 90, 180, 270]);
    const folio = folioOf([(await readDocument(Buffer.from(bytes), 'blank.pdf')).file]);
    const at = (leaf: number, y: number) => ({ type: 'region' as const, leaf, x: 0.2, y, width: 0.5, height: 0.1 });
    const remarks = [3, 1, 0, 2].map((leaf) => remark(at(leaf, 0.5)));
    const marked = await markFile({
      bytes,
      format: 'pdf',
      marks: marksOf(folio, 0, remarks, DEFAULT_KEY),
      copy: false,
    });
    const pages = read(marked).split('\f');
    expect(pages.slice(0, 4).map((page) => page.trim())).toEqual(['1', '2', '3', '4']);
  });

  it('has words behind its pages that can be searched in any script, at their places', async () => {
    const png = readFileSync(new URL('../../demo/documents/oyuna-batbayar.png', import.meta.url));
    const words = ['Ταμ', 'zażółć', '潮', '🌊', 'tide'].map((text, index) => ({
      ...{ text, left: 40 + index * 80, right: 90 + index * 80, top: 100, bottom: 114 },
    }));
    const marked = await withPages(await blank([0]), [{ png, width: 500, height: 400, words }]);
    expect(read(marked).split('\f')[1]!.trim().split(/\s+/u)).toEqual(words.map(({ text }) => text));
    const file = path.join(folder, 'read.pdf');
    const boxes = execFileSync('pdftotext', ['-bbox', file, '-'], { encoding: 'utf8' });
    const [, left, right] = /xMin="([\d.]+)"[^>]*xMax="([\d.]+)"[^>]*>tide/u.exec(boxes)!;
    expect([Number(left), Number(right)].map(Math.round)).toEqual([360, 410]);
  });
});
