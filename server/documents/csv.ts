import Papa from 'papaparse';
import { decodeText, guessedIn } from './decode-text.ts';
import { documentErrors, type Reader } from './document.ts';
import { sheetLeaf } from './sheet.ts';

/** Reads comma-separated values (RFC 4180), or what is separated by semicolons, tabs or bars. */
export const readCsv: Reader = (bytes, _name, { encoding }) => {
  const decoded = decodeText(bytes, encoding);
  if (!decoded) throw documentErrors.broken('csv');
  const { text } = decoded;
  const { data } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' });
  return {
    leaves: [
      sheetLeaf(
        'Table',
        data.map((row) => row.map((cell) => ({ text: cell }))),
      ),
    ],
    guessed: guessedIn(decoded),
  };
};
