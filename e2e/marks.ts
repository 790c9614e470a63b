import { PDFArray, PDFDict, type PDFDocument, PDFName } from '@cantoo/pdf-lib';
import { execFileSync } from 'node:child_process';
import { expect } from './school.ts';

/** Pixels to a point. */
const DOTS = 2;
/** Half of a space: a picture of words is set a hair tighter or wider than they are. */
const BESIDE = 2;

/**
 * Highlights begin and end where words do: beside each is a gap, and inside of each there are letters, as Poppler draws the page.
 * @param page counted from 0
 * @returns how many there are
 */
export function expectMarksOnWords(file: string, pdf: PDFDocument, page = 0): number {
  const number = String(page + 1);
  const picture = execFileSync('pdftoppm', ['-r', String(72 * DOTS), '-f', number, '-l', number, file], {
    maxBuffer: 2 ** 26,
  });
  const [header, width] = /^P6\s+(\d+)\s+\d+\s+255\s/u.exec(picture.toString('latin1', 0, 40))!;
  // Black or nearly so: neither a stroke nor a number is.
  const isDark = (x: number, y: number): boolean => {
    const at = header.length + (Math.round(y) * Number(width) + Math.round(x)) * 3;
    return Math.max(...picture.subarray(at, at + 3)) < 110;
  };
  const drawn = pdf.getPage(page);
  const quads = (drawn.node.Annots()?.asArray() ?? []).flatMap((ref) => {
    const corners = pdf.context.lookup(ref, PDFDict).lookupMaybe(PDFName.of('QuadPoints'), PDFArray);
    return corners ? [corners.asArray().map(Number)] : [];
  });
  for (const [left, top, right, , , bottom] of quads) {
    const [x, end] = [left! * DOTS, right! * DOTS];
    const [from, to] = [(drawn.getHeight() - top!) * DOTS, (drawn.getHeight() - bottom!) * DOTS];
    const column = (at: number): number[] =>
      Array.from({ length: Math.floor(to - from) }, (_, row) => from + row).filter((y) => isDark(at, y));
    expect(column(x - BESIDE * DOTS), `left of ${x} on page ${number}`).toEqual([]);
    const inside = Array.from({ length: Math.floor(end - x) }, (_, step) => column(x + step));
    expect(Math.max(...inside.map(({ length }) => length)), `in ${x} on page ${number}`).toBeGreaterThan(3);
    // The whole height of its words: nothing dark is cut off above or below.
    const row = (y: number): number => inside.filter((_, step) => isDark(x + step, y)).length;
    expect(row(from) + row(to), `above and below ${x} on page ${number}`).toBe(0);
  }
  return quads.length;
}
