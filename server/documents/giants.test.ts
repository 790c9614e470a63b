import { unzipSync, zipSync, strFromU8, strToU8 } from 'fflate';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readDocument } from './read.ts';

const workbook = readFileSync(new URL('../../demo/documents/yusuf-demirkan.xlsx', import.meta.url));

/** The workbook of the sample school with its first sheet changed. */
function changed(change: (sheet: string) => string): Uint8Array {
  const parts = unzipSync(workbook);
  const name = Object.keys(parts).find((part) => /worksheets\/sheet1\.xml$/u.test(part))!;
  const before = strFromU8(parts[name]!);
  const after = change(before);
  expect(after).not.toBe(before);
  return zipSync({ ...parts, [name]: strToU8(after) });
}

const read = async (bytes: Uint8Array) => (await readDocument(bytes, 'table.xlsx')).file.leaves;
const cell = (place: string, row: number): string => `<row r="${row}"><c r="${place}"><v>7</v></c></row></sheetData>`;

describe('a small workbook that says it is large', () => {
  it.each([
    ['a row that no program has', cell('A999999999', 999_999_999), 'more than 50,000 cells'],
    ['a column that no program has', cell('ZZZZ3', 3), 'more than 50,000 cells'],
    ['a value far down', cell('B1048576', 1_048_576), 'more than 50,000 cells'],
  ])('is refused before it takes time: %s', async (_, more, sentence) => {
    await expect(read(changed((sheet) => sheet.replace('</sheetData>', more)))).rejects.toThrow(sentence);
  });

  it('is read as its first cell where all of it is merged', async () => {
    const merged = '</sheetData><mergeCells count="1"><mergeCell ref="A1:XFD1048576"/></mergeCells>';
    expect(await read(changed((sheet) => sheet.replace('</sheetData>', merged)))).toMatchObject([
      { rows: [[{ text: 'Day' }]] },
    ]);
  });

  it('is read where it is only formatted far down, or says of whole columns what may be typed', async () => {
    const rules = '<dataValidations count="1"><dataValidation sqref="A1:XFD1048576" type="whole"/></dataValidations>';
    const styled = '<row r="1048576"><c r="C1048576" s="1"/></row></sheetData>';
    const bytes = changed((sheet) => sheet.replace('</sheetData>', `${styled}${rules}`));
    expect(await read(bytes)).toEqual(await read(workbook));
  });
});

describe('a long text', () => {
  const text = (characters: number): Promise<unknown> =>
    readDocument(Buffer.from('word '.repeat(characters / 5)), 'a.txt');

  it('is read up to the size of a book, and refused with a sentence beyond it', async () => {
    await expect(text(900_000)).resolves.toMatchObject({ bulk: { characters: 900_000, lines: 1 } });
    await expect(text(1_100_000)).rejects.toThrow('up to 1,000,000 characters in 20,000 paragraphs');
  });

  it('is refused where it has very many paragraphs, or says very much about how it looks', async () => {
    await expect(readDocument(Buffer.from('a\n\n'.repeat(20_001)), 'a.md')).rejects.toThrow(
      'Hand in the part that matters',
    );
    const letters = '<b>a</b>b'.repeat(300_000);
    await expect(readDocument(Buffer.from(`<p>${letters}</p>`), 'a.html')).rejects.toThrow(
      'more text than can be marked',
    );
  });
});
