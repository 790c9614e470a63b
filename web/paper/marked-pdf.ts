import { placedStrokes, boxAround, type Box, type DrawnStroke } from '#core/ink';
import {
  cutIntoSheets,
  middleOf,
  readableWords,
  strokeMark,
  type AboutMark,
  type Mark,
  type PlaceOnPage,
} from '#core/marked';
import { keyEntry, KEY_INKS } from '#core/margin';
import { timelineOf } from '#core/talk';
import { writeMarks } from '#core/annotated-pdf';
import { PLAIN_HEX } from '#contract/ink';
import type { Remark } from '#contract/remarks';
import type { Work } from '#contract/submissions';
import { PAPER_WIDTH, photograph, strokeOnPaper, type PhotographedLeaf, type PhotographedWork } from './photograph.ts';

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
}

interface Wanted {
  work: Work;
  remarks: readonly Remark[];
  /** The work alone, as `WorkStage` shows it. */
  stage: HTMLElement;
  /** From 0 to 1. */
  onProgress: (share: number) => void;
}

/** A work that is no PDF and no picture, laid out on pages, with what was said about it as annotations. */
export async function markedPdf({ work, remarks, stage, onProgress }: Wanted): Promise<Blob> {
  const paper = await photograph(stage, { sharpness: SHARPNESS, onProgress: (share) => onProgress(share * 0.8) });
  const sheets = paper.leaves.flatMap(sheetsOf);
  const pages: { png: Uint8Array; width: number; height: number }[] = [];
  for (const sheet of sheets) {
    const size = { width: (sheet.right - sheet.left) * POINT, height: (sheet.bottom - sheet.top) * POINT };
    pages.push({ png: await pngOf(sheet), ...size });
    onProgress(0.8 + (0.2 * pages.length) / sheets.length);
  }
  const bytes = await writeMarks({ format: 'pages', pages, marks: marksOf(work, remarks, paper, sheets), copy: false });
  return new Blob([bytes as Uint8Array<ArrayBuffer>], { type: 'application/pdf' });
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

  return remarks.flatMap((remark): Mark[] => {
    const { name, color } = keyEntry(work.marginKey, remark.kind);
    const words = readableWords(remark, name);
    const about = { by: remark.author.name, at: remark.madeAt, colour: KEY_INKS[color], words };
    const talked = timelineOf(remark.talk ?? [])
      .strokes.filter(({ until }) => until === Infinity)
      .flatMap(({ placed }) => strokeOnPaper(paper, placed))
      .map((drawn) => drawnMark(drawn, { ...about, words: '' }));
    const ink = placedStrokes(remark)
      .flatMap((placed) => strokeOnPaper(paper, placed))
      .map((drawn, index) => drawnMark(drawn, index > 0 ? { ...about, words: '' } : about));
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
      ...about,
      ...(index > 0 && { words: '' }),
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
