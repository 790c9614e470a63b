import { columnIndex, movedFormula, type SheetCell, type SheetLeaf } from '#core/folio';
import type { Document, Element } from '@xmldom/xmldom';
import path from 'node:path/posix';
import { documentErrors, documentNotes, type Reader } from './document.ts';
import { chartLabel } from './docx-objects.ts';
import { MAX_CELLS, MAX_FORMULA, sheetLeaf } from './sheet.ts';
import { valueText, xlsxFormats } from './xlsx-value.ts';
import { attribute, child, children, descendants, readableXml } from './xml.ts';
import { openPackage, type Package } from './zip.ts';

/** The most rows and columns of a sheet in Office (common practice; ECMA-376 sets no bound). */
const MAX_ROWS = 1_048_576;
const MAX_COLUMNS = 16_384;

/**
 * Reads an Office Open XML workbook (ECMA-376 Part 1, section 18): the values of its visible sheets as they are shown, formulas
 * by their last result, and as formulas where they were never computed.
 */
export const readXlsx: Reader = (bytes) => {
  const files = openPackage(bytes, 'xlsx');
  const xml = (name: string | undefined): Document | undefined =>
    readableXml(name === undefined ? undefined : files.text(name), 'xlsx');
  const main =
    targetsOf(xml('_rels/.rels'), '').find(({ type }) => type === 'officeDocument')?.name ?? 'xl/workbook.xml';
  const workbook = xml(main);
  if (!workbook) throw documentErrors.broken('xlsx');
  const targets = targetsOf(xml(relationsOf(main)), path.dirname(main));
  const named = (type: string): Document | undefined => xml(targets.find((target) => target.type === type)?.name);
  const strings = children(named('sharedStrings')?.documentElement ?? undefined, 'si').map(stringText);
  const date1904 = isTrue(attribute(child(workbook.documentElement ?? undefined, 'workbookPr'), 'date1904'));
  const formats = xlsxFormats(named('styles')?.documentElement ?? undefined, date1904);

  const unreadable: string[] = [];
  const partsOf = (name: string): Target[] => targetsOf(xml(relationsOf(name)), path.dirname(name));
  /** The charts that stand on a sheet (section 20.5), by their titles. */
  const chartsOn = (sheet: string): string[] =>
    partsOf(sheet)
      .filter(({ type }) => type === 'drawing')
      .flatMap((drawing) => partsOf(drawing.name).filter(({ type }) => type === 'chart'))
      .map((chart) => chartLabel(xml(chart.name)));
  const chartLeaf = (label: string): SheetLeaf => sheetLeaf(label, [[{ text: `${label} (not shown)` }]]);
  const leaves = descendants(workbook, 'sheet').flatMap((sheet): SheetLeaf[] => {
    if ((attribute(sheet, 'state') ?? 'visible') !== 'visible') return [];
    const name = attribute(sheet, 'name') ?? 'Sheet';
    const target = targets.find(({ id }) => id === attribute(sheet, 'r:id'));
    // A sheet that holds a chart alone has no cells.
    if (target && target.type !== 'worksheet') return chartsOn(target.name).map(chartLeaf);
    const text = target && files.text(target.name);
    const cells = text === undefined ? undefined : cellsOf(text, { strings, formats });
    if (!cells) {
      unreadable.push(name);
      return [sheetLeaf(name, [[{ text: 'This sheet could not be read.' }]])];
    }
    return [...(cells.length > 0 ? [sheetLeaf(name, cells)] : []), ...chartsOn(target!.name).map(chartLeaf)];
  });
  if (unreadable.length > 0 && unreadable.length === leaves.length) throw documentErrors.broken('xlsx');
  if (leaves.length === 0) throw documentErrors.emptyCells();
  const notes = unreadable.length > 0 ? [documentNotes.unreadable(unreadable)] : [];
  return { title: titleOf(files), leaves, notes };
};

/** A cell whose text is kept in a part that is missing or broken. */
const MISSING_TEXT = '(text missing)';

interface Target {
  id: string;
  /** The last part of its type, which transitional and strict documents share. */
  type: string;
  name: string;
}

const relationsOf = (name: string): string => path.join(path.dirname(name), '_rels', `${path.basename(name)}.rels`);

const targetsOf = (relations: Document | undefined, folder: string): Target[] =>
  descendants(relations, 'Relationship').map((one) => {
    const target = attribute(one, 'Target') ?? '';
    return {
      id: attribute(one, 'Id') ?? '',
      type: (attribute(one, 'Type') ?? '').split('/').at(-1)!,
      name: target.startsWith('/') ? target.slice(1) : path.join(folder, target),
    };
  });

function titleOf(files: Package): string | undefined {
  const properties = readableXml(files.text('docProps/core.xml'), 'xlsx');
  return descendants(properties, 'title')[0]?.textContent?.trim() || undefined;
}

/** Its characters without those that only say how they are pronounced. */
const stringText = (string: Element): string =>
  Array.from(string.childNodes)
    .map((node) => {
      if (node.localName === 't') return node.textContent ?? '';
      return node.localName === 'r' ? (child(node, 't')?.textContent ?? '') : '';
    })
    .join('');

const isTrue = (value: string | undefined): boolean => value === '1' || value === 'true';

interface Sources {
  strings: readonly string[];
  formats: ReturnType<typeof xlsxFormats>;
}

/** Cells that hold nothing and are only formatted: there may be a million of them. */
const EMPTY_CELL = /<(?:\w+:)?c\b[^>]*\/>/gu;
const FULL_CELL = /<(?:\w+:)?c[\s>]/gu;

/**
 * By what is there, since a row far down may be all that makes a sheet long.
 * @returns nothing where they cannot be read
 * @throws DocumentError where it is larger than can be shown, or than any sheet is
 */
function cellsOf(text: string, sources: Sources): SheetCell[][] | undefined {
  const filled = text.replace(EMPTY_CELL, '');
  if ((filled.match(FULL_CELL)?.length ?? 0) > 2 * MAX_CELLS) throw documentErrors.tooManyCells();
  const sheet = readableXml(filled, 'xlsx')?.documentElement;
  if (!sheet) return undefined;
  const hidden = hiddenByMerging(sheet);
  const formulaOf = formulasOf();
  const rows: SheetCell[][] = [];
  let width = 0;
  let row = 0;
  for (const element of children(child(sheet, 'sheetData'), 'row')) {
    row = Number(attribute(element, 'r') ?? row + 1);
    let column = 0;
    for (const cell of children(element, 'c')) {
      const place = attribute(cell, 'r');
      if (place === undefined) column++;
      else ({ row, column } = placeOf(place));
      if (!(row >= 1 && column >= 1)) return undefined;
      if (row > MAX_ROWS || column > MAX_COLUMNS) throw documentErrors.tooManyCells();
      const shown = textOf(cell, sources);
      const formula = formulaOf(cell, { row, column });
      if (shown.trim() === '' || hidden(row, column)) continue;
      width = Math.max(width, column);
      if (row * width > MAX_CELLS) throw documentErrors.tooManyCells();
      while (rows.length < row) rows.push([]);
      rows[row - 1]![column - 1] = { text: shown, ...(formula !== undefined && formula !== shown && { formula }) };
    }
  }
  return rows;
}

/** Formulas, those that are shared too, which stand only in the first of their cells (ECMA-376 Part 1, section 18.3.1.40). */
function formulasOf(): (cell: Element, place: { row: number; column: number }) => string | undefined {
  const shared = new Map<string, { formula: string; row: number; column: number }>();
  return (cell, { row, column }) => {
    const element = child(cell, 'f');
    const written = element?.textContent?.slice(0, MAX_FORMULA) ?? '';
    const group = attribute(element, 't') === 'shared' ? attribute(element, 'si') : undefined;
    if (written !== '' && group !== undefined) shared.set(group, { formula: written, row, column });
    const first = group === undefined ? undefined : shared.get(group);
    const formula =
      written !== '' || !first ? written : movedFormula(first.formula, row - first.row, column - first.column);
    return formula === '' ? undefined : `=${formula}`;
  };
}

/** Of merged cells only the first shows its value. */
function hiddenByMerging(sheet: Element | undefined): (row: number, column: number) => boolean {
  const areas = children(child(sheet, 'mergeCells'), 'mergeCell').map((one) => {
    const [from, to = from] = (attribute(one, 'ref') ?? '').split(':').map(placeOf);
    return { from: from!, to: to! };
  });
  return (row, column) =>
    areas.some(
      ({ from, to }) =>
        row >= from.row &&
        row <= to.row &&
        column >= from.column &&
        column <= to.column &&
        (row !== from.row || column !== from.column),
    );
}

/** `C7` is row 7, column 3. */
function placeOf(cell: string): { row: number; column: number } {
  const [, letters = '', row = '0'] = /^\$?([A-Z]{1,8})\$?(\d{1,12})$/iu.exec(cell) ?? [];
  return { row: Number(row), column: columnIndex(letters) + 1 };
}

/** ECMA-376 Part 1, section 18.3.1.4: what a cell holds is said by its type. */
function textOf(cell: Element, { strings, formats }: Sources): string {
  const value = child(cell, 'v')?.textContent ?? undefined;
  const type = attribute(cell, 't') ?? 'n';
  if (type === 'inlineStr') return stringText(child(cell, 'is') ?? cell);
  // A result that is empty is a text; a formula that nobody has computed has none.
  if (value === undefined || (value === '' && type !== 'str' && child(cell, 'f'))) {
    const formula = child(cell, 'f')?.textContent;
    return formula ? `=${formula}` : '';
  }
  if (type === 's') return strings[Number(value)] ?? MISSING_TEXT;
  if (type === 'b') return isTrue(value) ? 'TRUE' : 'FALSE';
  if (type === 'n') return valueText(Number(value), formats(Number(attribute(cell, 's') ?? 0)));
  return type === 'd' ? value.replace('T', ' ') : value;
}
