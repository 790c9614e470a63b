import type { SheetCell, SheetLeaf } from '#core/folio';
import { documentErrors } from './document.ts';

/** More than that nobody reads beside it. */
export const MAX_CELLS = 50_000;
/** Of a formula, in characters. */
export const MAX_FORMULA = 1000;

/**
 * A table with as many cells in each row, without empty rows and columns behind the last that is filled.
 * @throws DocumentError where it is empty, or larger than can be shown
 */
export function sheetLeaf(label: string, cells: readonly (readonly SheetCell[])[]): SheetLeaf {
  const filled = (cell: SheetCell | undefined): boolean => cell !== undefined && cell.text !== '';
  const height = cells.findLastIndex((row) => row.some(filled)) + 1;
  const width = Math.max(0, ...cells.slice(0, height).map((row) => row.findLastIndex(filled) + 1));
  if (height * width === 0) throw documentErrors.withoutText();
  if (height * width > MAX_CELLS) throw documentErrors.tooManyCells();
  const rows = cells
    .slice(0, height)
    .map((row) => Array.from({ length: width }, (_, column): SheetCell => cleaned(row[column] ?? { text: '' })));
  return { kind: 'sheet', label, rows };
}

/** Tabs and line ends separate cells and rows in the canonical text, so inside of a cell they are spaces. */
const cleaned = (cell: SheetCell): SheetCell => ({ ...cell, text: cell.text.replace(/[\t\n\r]+/g, ' ') });
