import { plainFormula, type SheetCell } from '#core/folio';
import type { Element } from '@xmldom/xmldom';
import { documentErrors, type Reader } from './document.ts';
import { openOdf } from './odf.ts';
import { MAX_CELLS, MAX_FORMULA, sheetLeaf } from './sheet.ts';
import { attribute, children, descendants, elements, numberOf } from './xml.ts';

/** Reads an OpenDocument spreadsheet (ODF 1.3, part 3, section 9): the values of its sheets as they are shown. */
export const readOds: Reader = (bytes) => {
  const { body, title } = openOdf(bytes, 'ods', 'spreadsheet', false);
  const leaves = children(body, 'table').flatMap((table) => {
    const name = attribute(table, 'table:name') ?? 'Sheet';
    const cells = cellsOf(table);
    const charts = descendants(table, 'object').map(() => sheetLeaf('Chart', [[{ text: 'Chart (not shown)' }]]));
    return [...(cells.length > 0 ? [sheetLeaf(name, cells)] : []), ...charts];
  });
  if (leaves.length === 0) throw documentErrors.emptyCells();
  return { title, leaves };
};

/** Rows may stand in groups, and in those that are repeated on each page. */
const ROW_GROUPS = ['table-rows', 'table-header-rows', 'table-row-group'];
const rowsOf = (parent: Element): Element[] =>
  elements(parent).flatMap((element) => {
    if (element.localName === 'table-row') return [element];
    return ROW_GROUPS.includes(element.localName ?? '') ? rowsOf(element) : [];
  });

/**
 * By what is there: a row or a cell that is empty may be repeated a million times.
 * @throws DocumentError where it is larger than can be shown
 */
function cellsOf(table: Element): SheetCell[][] {
  const rows: SheetCell[][] = [];
  let row = 0;
  let width = 0;
  for (const element of rowsOf(table)) {
    const cells = cellsIn(element);
    const times = repeated(element, 'table:number-rows-repeated');
    if (cells.length > 0) {
      width = Math.max(width, cells.length);
      if ((row + times) * width > MAX_CELLS) throw documentErrors.tooManyCells();
      while (rows.length < row) rows.push([]);
      for (let time = 0; time < times; time++) rows.push(cells);
    }
    row += times;
  }
  return rows;
}

function cellsIn(row: Element): SheetCell[] {
  const cells: SheetCell[] = [];
  let column = 0;
  for (const cell of elements(row)) {
    if (cell.localName !== 'table-cell' && cell.localName !== 'covered-table-cell') continue;
    const times = repeated(cell, 'table:number-columns-repeated');
    const text = cell.localName === 'table-cell' ? textOf(cell) : '';
    if (text.trim() !== '') {
      if (column + times > MAX_CELLS) throw documentErrors.tooManyCells();
      while (cells.length < column) cells.push({ text: '' });
      const formula = attribute(cell, 'table:formula');
      for (let time = 0; time < times; time++)
        cells.push({ text, ...(formula !== undefined && { formula: plainFormula(formula.slice(0, MAX_FORMULA)) }) });
    }
    column += times;
  }
  return cells;
}

const repeated = (element: Element, name: string): number => Math.max(1, Math.floor(numberOf(element, name) ?? 1));

/** What is shown of a cell; its value where nothing is. */
function textOf(cell: Element): string {
  const shown = children(cell, 'p').map((paragraph) => wordsOf(paragraph));
  return shown.length > 0 ? shown.join(' ') : (attribute(cell, 'office:value') ?? '');
}

/** ODF 1.3, part 3, section 6.1: several spaces, tabs and line ends are elements. */
function wordsOf(parent: Element): string {
  return Array.from(parent.childNodes)
    .map((node) => {
      if (node.nodeType === 3) return node.nodeValue ?? '';
      const element = node as Element;
      if (element.localName === 's') return ' '.repeat(Math.min(1000, repeated(element, 'text:c')));
      if (element.localName === 'tab' || element.localName === 'line-break') return ' ';
      return node.nodeType === 1 ? wordsOf(element) : '';
    })
    .join('');
}
