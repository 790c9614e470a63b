import { placedStrokes, boxAround, type Box, type DrawnStroke } from '#core/ink';
import {
  cutIntoSheets,
  furtherMark,
  middleOf,
  numbered,
  readableWords,
  strokeMark,
  type AboutMark,
  type Mark,
  type PlaceOnPage,
} from '#core/marked';
import { keyEntry, KEY_INKS } from '#core/margin';
import { timelineOf } from '#core/talk';
import { withPages, writeMarks, type PicturedPage } from '#core/annotated-pdf';
import { PLAIN_HEX } from '#contract/ink';
import type { Remark } from '#contract/remarks';
import type { Work } from '#contract/submissions';
import { PAPER_WIDTH, photograph, strokeOnPaper, type PhotographedLeaf, type PhotographedWork } from './photograph.ts';
import type { WrittenWord } from './written-words.ts';

/** Points: the width of an A4 sheet (ISO 216), its height, and how much of it a pixel is. */
const [A4_WIDTH, A4_HEIGHT] = [595.28, 841.89];
const POINT = A4_WIDTH / PAPER_WIDTH;
/** So that small letters can be read on paper. */
const SHARPNESS = 2;
const NOTE_APART = 26;

/** A sheet of paper with a part of a leaf; pixels of the work. */
interface Sheet extends Box {
  leaf: number;
  picture: HTMLCanvasElement;
  words: readonly WrittenWord[];
}

interface Wanted {
  work: Work;
  remarks: readonly Remark[];
  /** The work alone, as `WorkStage` shows it. */
  stage: HTMLElement;
  /** The words of its remarks, as `RemarkPages` shows them. */
  list: HTMLElement;
  /** From 0 to 1. */
  onProgress: (share: number) => void;
}

/** A work that is no PDF and no picture, laid out on pages, with its remarks as annotations and their words on pages behind it. */
export async function markedPdf({ work, remarks, stage, list, onProgress }: Wanted): Promise<Uint8Array> {
  const paper = await photograph(stage, { sharpness: SHARPNESS, onProgress: (share) => onProgress(share * 0.7) });
  const sheets = paper.leaves.flatMap(sheetsOf);
  const pages = await picturedPages(sheets, (share) => onProgress(0.7 + share * 0.2));
  const marks = marksOf(work, remarks, paper, sheets);
  const marked = await writeMarks({ format: 'pages', pages, marks, copy: false });
  return withRemarkPages(marked, list, (share) => onProgress(0.9 + share * 0.1));
}

/** A PDF with the words of its remarks on pages of their own at its end. */
export async function withRemarkPages(
  pdf: Uint8Array,
  list: HTMLElement,
  onProgress: (share: number) => void = () => undefined,
): Promise<Uint8Array> {
  const { leaves } = await photograph(list, { sharpness: SHARPNESS, onProgress });
  return withPages(pdf, await picturedPages(leaves.flatMap(sheetsOf)));
}

async function picturedPages(
  sheets: readonly Sheet[],
  onProgress: (share: number) => void = () => undefined,
): Promise<PicturedPage[]> {
  const pages: PicturedPage[] = [];
  for (const sheet of sheets) {
    const { left, top, right, bottom, words } = sheet;
    pages.push({
      ...{ png: await pngOf(sheet), width: (right - left) * POINT, height: (bottom - top) * POINT },
      words: words.map((word) => ({
        ...{ text: word.text, left: (word.left - left) * POINT, right: (word.right - left) * POINT },
        ...{ top: (word.top - top) * POINT, bottom: (word.bottom - top) * POINT },
      })),
    });
    onProgress(pages.length / sheets.length);
  }
  return pages;
}

function sheetsOf(leaf: PhotographedLeaf, index: number): Sheet[] {
  const { left, right, picture, lines } = leaf;
  const tallest = lines.length > 0 ? A4_HEIGHT / POINT : leaf.bottom - leaf.top;
  return cutIntoSheets(leaf, lines, tallest).map((cut) => ({
    ...cut,
    left,
    right,
    leaf: index,
    picture: partOf(leaf, cut, picture),
    words: leaf.words.filter((word) => middleOf(word) >= cut.top && middleOf(word) < cut.bottom),
  }));
}

function partOf(
  { left, right, top }: Box,
  cut: { top: number; bottom: number },
  picture: HTMLCanvasElement,
): HTMLCanvasElement {
  const sharp = picture.width / (right - left);
  const part = document.createElement('canvas');
  part.width = picture.width;
  part.height = Math.max(1, Math.round((cut.bottom - cut.top) * sharp));
  part.getContext('2d')!.drawImage(picture, 0, -Math.round((cut.top - top) * sharp));
  return part;
}

async function pngOf({ picture }: Sheet): Promise<Uint8Array> {
  const blob = await new Promise<Blob | null>((resolve) => picture.toBlob(resolve, 'image/png'));
  if (!blob) throw new Error('A page could not be drawn');
  return new Uint8Array(await blob.arrayBuffer());
}

function marksOf(work: Work, remarks: readonly Remark[], paper: PhotographedWork, sheets: readonly Sheet[]): Mark[] {
  let notes = 0;
  const sheetAt = (y: number): number =>
    Math.max(
      0,
      sheets.findLastIndex(({ top }) => top <= y),
    );
  const onSheet = (page: number, { x, y }: { x: number; y: number }): PlaceOnPage => {
    const { left, top } = sheets[page]!;
    return [(x - left) * POINT, (y - top) * POINT];
  };
  const drawnMark = (drawn: DrawnStroke, about: Omit<AboutMark, 'page'>): Mark => {
    const page = sheetAt(middleOf(boxAround(drawn.points)));
    const points = drawn.points.map((point) => {
      const [x, y] = onSheet(page, point);
      return { ...point, x, y };
    });
    const colour = PLAIN_HEX[drawn.colour] ?? KEY_INKS[keyEntry(work.marginKey, drawn.colour).color];
    return strokeMark({ ...drawn, points, width: drawn.width * POINT }, { ...about, page, colour });
  };

  return numbered(remarks, work.folio.leaves).flatMap(({ remark, number }): Mark[] => {
    const { name, color } = keyEntry(work.marginKey, remark.kind);
    const words = readableWords(remark, name);
    const about = { by: remark.author.name, at: remark.madeAt, colour: KEY_INKS[color], words, number };
    const talked = timelineOf(remark.talk ?? [])
      .strokes.filter(({ until }) => until === Infinity)
      .flatMap(({ placed }) => strokeOnPaper(paper, placed))
      .map((drawn) => drawnMark(drawn, furtherMark(about)));
    const ink = placedStrokes(remark)
      .flatMap((placed) => strokeOnPaper(paper, placed))
      .map((drawn, index) => drawnMark(drawn, index > 0 ? furtherMark(about) : about));
    if (ink.length > 0) return ink;
    const boxes = paper.boxesOf(remark.anchor);
    const [first] = boxes;
    if (!first || !['passage', 'region'].includes(remark.anchor.type)) {
      const page = first ? sheetAt(first.top) : 0;
      return [{ ...about, type: 'note', page, place: [12, 12 + NOTE_APART * notes++] }, ...talked];
    }
    if (remark.anchor.type === 'region') {
      const page = sheetAt(middleOf(first));
      const [left, top] = onSheet(page, { x: first.left, y: first.top });
      const [right, bottom] = onSheet(page, { x: first.right, y: first.bottom });
      return [{ ...about, type: 'box', page, box: [left, top, right, bottom] }];
    }
    const pages = [...new Set(boxes.map((box) => sheetAt(middleOf(box))))];
    return pages.map((page, index): Mark => ({
      ...(index > 0 ? furtherMark(about) : about),
      ...{ type: 'highlight', page },
      quads: boxes
        .filter((box) => sheetAt(middleOf(box)) === page)
        .map((box) => cornersOf(box, (place) => onSheet(page, place))),
    }));
  });
}

/** The upper two first, as most readers expect them. */
const cornersOf = (
  { left, top, right, bottom }: Box,
  place: (at: { x: number; y: number }) => PlaceOnPage,
): PlaceOnPage[] =>
  [
    { x: left, y: top },
    { x: right, y: top },
    { x: left, y: bottom },
    { x: right, y: bottom },
  ].map(place);
