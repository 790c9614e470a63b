import Papa from 'papaparse';
import { decodeText } from './decode-text.ts';
import { documentErrors, type Reader } from './document.ts';
import { sheetLeaf } from './sheet.ts';

/** Reads comma-separated values (RFC 4180), or what is separated by semicolons, tabs or bars. */
export const readCsv: Reader = (bytes) => {
  const text = decodeText(bytes);
  if (text === undefined) throw documentErrors.broken('csv');
  const { data } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' });
  return {
    leaves: [
      sheetLeaf(
        'Table',
        data.map((row) => row.map((cell) => ({ text: cell }))),
      ),
    ],
  };
};
