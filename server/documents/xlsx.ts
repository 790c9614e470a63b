import type { SheetCell } from '#core/folio';
import { strToU8, zipSync } from 'fflate';
import ExcelJS, { type Cell, type CellValue, type Worksheet } from 'exceljs';
import { documentErrors, type Reader } from './document.ts';
import { MAX_CELLS, sheetLeaf } from './sheet.ts';
import { openPackage } from './zip.ts';

/** Reads an Excel workbook: the values of its visible sheets, formulas by their last result. */
export const readXlsx: Reader = async (bytes) => {
  const workbook = new ExcelJS.Workbook();
  await workbook.xlsx.load(withoutGiants(bytes) as never);
  const sheets = workbook.worksheets.filter(({ state, actualRowCount }) => state === 'visible' && actualRowCount > 0);
  if (sheets.length === 0) throw documentErrors.withoutText();
  return { title: workbook.title || undefined, leaves: sheets.map((sheet) => sheetLeaf(sheet.name, cellsOf(sheet))) };
};

/** The most rows and columns of a sheet in Office (common practice; ECMA-376 sets no bound). */
const MAX_ROWS = 1_048_576;
const MAX_COLUMNS = 16_384;

const SHEET = /(^|\/)worksheets\/[^/]+\.xml$/u;
/** What may be typed into cells is of no use to a reader, and is often said of whole columns. */
const VALIDATIONS = /<((?:\w+:)?)dataValidations\b[^>]*?(?:\/>|>[\s\S]*?<\/\1dataValidations>)/gu;
const ROW = /<(?:\w+:)?row\b[^>]*?\sr="(\d+)"/gu;
const CELL = /<(?:\w+:)?c\b[^>]*?\sr="([^"]+)"/gu;
const MERGED = /<(?:\w+:)?mergeCell\b[^>]*?\sref="([^"]+)"/gu;

/**
 * The same workbook without what a few bytes can say of very many cells, each of which would be gone through.
 * @throws DocumentError where there are more cells than Office has, or merged ones than are shown
 */
function withoutGiants(bytes: Uint8Array): Uint8Array {
  const parts = openPackage(bytes, 'xlsx');
  const changed: Record<string, Uint8Array> = {};
  for (const name of parts.names.filter((part) => SHEET.test(part))) {
    const text = parts.text(name)!;
    const places = [...text.matchAll(CELL)].map(([, cell]) => placeOf(cell!));
    const tooFar = places.some(({ row, column }) => row > MAX_ROWS || column > MAX_COLUMNS);
    if (tooFar || [...text.matchAll(ROW)].some(([, row]) => Number(row) > MAX_ROWS))
      throw documentErrors.broken('xlsx');
    if ([...text.matchAll(MERGED)].some(([, range]) => areaOf(range!) > MAX_CELLS)) throw documentErrors.tooManyCells();
    const rest = text.replace(VALIDATIONS, '');
    if (rest !== text) changed[name] = strToU8(rest);
  }
  if (Object.keys(changed).length === 0) return bytes;
  const files = parts.names
    .filter((name) => !name.endsWith('/'))
    .map((name) => [name, changed[name] ?? parts.bytes(name)!] as const);
  return zipSync(Object.fromEntries(files), { level: 0 });
}

/** `C7` is row 7, column 3. */
function placeOf(cell: string): { row: number; column: number } {
  const [, letters = '', row = '0'] = /^\$?([A-Z]{1,8})\$?(\d{1,12})$/iu.exec(cell) ?? [];
  const column = [...letters.toUpperCase()].reduce((sum, letter) => 26 * sum + letter.charCodeAt(0) - 64, 0);
  return { row: Number(row), column };
}

function areaOf(range: string): number {
  const [from, to = from] = range.split(':').map(placeOf);
  return (to!.row - from!.row + 1) * (to!.column - from!.column + 1);
}

/** By what is there, since a row far down may be all that makes a sheet long. */
function cellsOf(sheet: Worksheet): SheetCell[][] {
  const rows: SheetCell[][] = [];
  let width = 0;
  sheet.eachRow((row, number) =>
    row.eachCell((cell, column) => {
      // Of merged cells only the first has the value.
      const text = cell.isMerged && cell.master !== cell ? '' : textOf(cell);
      if (text === '') return;
      width = Math.max(width, column);
      if (number * width > MAX_CELLS) throw documentErrors.tooManyCells();
      while (rows.length < number) rows.push([]);
      rows[number - 1]![column - 1] = { text };
    }),
  );
  return rows;
}

function textOf(cell: Cell): string {
  return textOfValue(cell.value, cell.numFmt);
}

function textOfValue(value: CellValue, format: string | undefined): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date) return dateText(value);
  if (typeof value === 'number') return numberText(value, format);
  if (typeof value !== 'object') return String(value);
  if ('richText' in value) return value.richText.map(({ text }) => text).join('');
  if ('error' in value) return value.error;
  if ('text' in value) return String(value.text);
  if ('result' in value) return textOfValue(value.result ?? null, format);
  return '';
}

/** `2026-03-09`, with the time of day where there is one; a time alone as `14:30`. */
function dateText(date: Date): string {
  const [day, time] = date.toISOString().split(/[T.]/) as [string, string];
  const clock = time.replace(/:00$/, '');
  if (date.getTime() < Date.UTC(1900, 0, 1)) return clock;
  return time === '00:00:00' ? day : `${day} ${clock}`;
}

/** A number as its format shows it, as far as places and per cent go. */
function numberText(value: number, format = 'General'): string {
  const places = /^[#,]*0(?:\.(0+))?(%)?/.exec(format);
  if (!places) return String(Number(value.toPrecision(12)));
  const digits = places[1]?.length ?? 0;
  return places[2] ? `${(value * 100).toFixed(digits)}%` : value.toFixed(digits);
}
