import Papa from 'papaparse';

/** The most cells that are pasted at once. */
export const MOST_PASTED = 2000;

/**
 * What a spreadsheet puts on the clipboard, as rows of cells: lines with tabs between, cells with line ends or quotes in quotes.
 * A last empty line is none.
 */
export function readBlock(text: string): string[][] {
  const whole = text.replace(/^\ufeff/u, '').replace(/(\r\n|\r|\n)$/u, '');
  return Papa.parse<string[]>(whole, { delimiter: '\t' }).data;
}

export const writeBlock = (rows: readonly (readonly string[])[]): string =>
  Papa.unparse(rows as string[][], { delimiter: '\t', newline: '\n', escapeFormulae: true });
