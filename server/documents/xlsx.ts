import type { SheetCell } from '#core/folio';
import ExcelJS, { type Cell, type CellValue, type Worksheet } from 'exceljs';
import { documentErrors, type Reader } from './document.ts';
import { sheetLeaf } from './sheet.ts';
import { openPackage } from './zip.ts';

/** Reads an Excel workbook: the values of its visible sheets, formulas by their last result. */
export const readXlsx: Reader = async (bytes) => {
  openPackage(bytes, 'xlsx');
  const workbook = new ExcelJS.Workbook();
  await workbook.xlsx.load(bytes as never);
  const sheets = workbook.worksheets.filter(({ state, actualRowCount }) => state === 'visible' && actualRowCount > 0);
  if (sheets.length === 0) throw documentErrors.withoutText();
  return { title: workbook.title || undefined, leaves: sheets.map((sheet) => sheetLeaf(sheet.name, cellsOf(sheet))) };
};

function cellsOf(sheet: Worksheet): SheetCell[][] {
  const [height, width] = [sheet.rowCount, sheet.columnCount];
  if (height * width > 5_000_000) throw documentErrors.tooManyCells();
  return Array.from({ length: height }, (_, row) =>
    Array.from({ length: width }, (_, column) => {
      const cell = sheet.getCell(row + 1, column + 1);
      // Of merged cells only the first has the value.
      return { text: cell.isMerged && cell.master !== cell ? '' : textOf(cell) };
    }),
  );
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
