import { agreementOf, statisticsOf, type Agreement, type Statistics } from '#core/grading';
import { readFile } from 'node:fs/promises';
import { text as textOfStream } from 'node:stream/consumers';
import Papa from 'papaparse';

const FIELDS = { delimiter: '', skipEmptyLines: false as const };

/** Numbers are written as people write them, with a point; what a computer alone understands (0x10, Infinity) is none. */
const NUMBER = /^[+-]?(\d+(?:\.\d*)?|\.\d+)([eE][+-]?\d+)?$/u;

function numberOf(cell: string, line: number): number {
  const written = cell.trim();
  const value = Number(written);
  if (!NUMBER.test(written) || !Number.isFinite(value)) throw new Error(`Line ${line}: “${cell}” is no number.`);
  return value;
}

const textOf = async (file: string): Promise<string> =>
  (file === '-' ? await textOfStream(process.stdin) : await readFile(file, 'utf8')).replace(/^\ufeff/u, '');

/** What numbers have in common, one a line; empty lines are passed over. @param file `-` for standard input */
export async function statistics(file: string): Promise<Statistics> {
  const lines = (await textOf(file)).split(/\r\n|\r|\n/u);
  return statisticsOf(lines.flatMap((line, index) => (line.trim() === '' ? [] : [numberOf(line, index + 1)])));
}

/** How far raters agree: a row a unit, a column a rater, empty where one has not rated; a first row of names is passed over. */
export async function agreement(file: string): Promise<Agreement> {
  const text = (await textOf(file)).replace(/(\r\n|\r|\n)$/u, '');
  const { data } = Papa.parse<string[]>(text, FIELDS);
  const named = data[0]?.some((cell) => cell.trim() !== '' && !NUMBER.test(cell.trim())) ?? false;
  const rows = named ? data.slice(1) : data;
  return agreementOf(
    rows.map((row, index) => row.map((cell) => (cell.trim() === '' ? null : numberOf(cell, index + (named ? 2 : 1))))),
  );
}
