import { degrees, rgb, StandardFonts, type PDFDocument, type PDFPage } from '@cantoo/pdf-lib';
import { max, min } from 'd3-array';
import type { Mark, PlaceOnPage } from '../marked/index.ts';

/** Points on a sheet of A4; larger on larger pages. */
const SIZE = 6.5;
const A4_WIDTH = 595;
const ROOM = 1.6;

/** How places on a page as it is shown are written into it. */
export interface Ground {
  /** From points from the upper left corner to user space. */
  user: (place: PlaceOnPage) => PlaceOnPage;
  /** Points in a unit of user space. */
  unit: number;
  /** Points: the page as it is shown. */
  wide: number;
}

/** Writes the number of a remark beside its mark, into the page itself, so that every reader prints it. */
export function writeNumber(document: PDFDocument, page: PDFPage, mark: Mark, { user, unit, wide }: Ground): void {
  if (mark.number === undefined) return;
  const font = document.embedStandardFont(StandardFonts.HelveticaBold);
  const text = String(mark.number);
  const size = SIZE * Math.max(1, wide / A4_WIDTH);
  const width = font.widthOfTextAtSize(text, size) + 2 * ROOM;
  const height = size * 0.72 + 2 * ROOM;
  const [left, bottom] = cornerFor(mark, height);
  const angle = degrees(page.getRotation().angle);
  const at = ([x, y]: PlaceOnPage) => ({ x, y });
  page.drawRectangle({
    ...at(user([left, bottom])),
    ...{ width: width / unit, height: height / unit, rotate: angle, color: colourOf(mark.colour) },
  });
  page.drawText(text, {
    ...at(user([left + ROOM, bottom - ROOM])),
    ...{ size: size / unit, font, rotate: angle, color: rgb(1, 1, 1) },
  });
}

/** The lower left corner of a number: behind a passage or a stroke, a little above it; at the corner of all else. */
function cornerFor(mark: Mark, height: number): PlaceOnPage {
  switch (mark.type) {
    case 'highlight': {
      const [, [x, y]] = mark.quads.at(-1) as [PlaceOnPage, PlaceOnPage];
      return [x, y + height / 2];
    }
    case 'box':
      return [mark.box[0], mark.box[1]];
    case 'note':
      return [mark.place[0] + 22, mark.place[1] + 4 + height];
    case 'stroke':
      return [max(mark.trace, ([x]) => x)! + 1, min(mark.trace, ([, y]) => y)! + height / 2];
    case 'label':
      return [mark.place[0], mark.place[1] - mark.size * 1.2];
  }
}

const colourOf = (hex: string) => {
  const [red, green, blue] = [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16) / 255);
  return rgb(red!, green!, blue!);
};
