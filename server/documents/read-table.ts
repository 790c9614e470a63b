import type { Context } from '../context.ts';
import { DocumentError } from './document.ts';
import { problems } from '../errors.ts';
import { bytesOf, type UploadedFile } from '../uploads/uploaded.ts';

/** More is no class. */
const MOST_LINES = 5000;

/**
 * The first table of a file (.csv or .xlsx) as it reads: in whatever encoding, however its columns are parted, formulas by their
 * last result and never computed. It is read in a thread with limits of its own.
 */
export async function readTable({ readDocument, db }: Context, who: string, file: UploadedFile): Promise<string[][]> {
  const read = await readDocument(who, () => bytesOf(db, file), file.name).catch((error: unknown) => {
    throw error instanceof DocumentError ? problems.unreadableDocument(error.message) : error;
  });
  const sheet = read.file.leaves.find((leaf) => leaf.kind === 'sheet');
  if (!sheet) throw problems.noTable();
  if (sheet.rows.length > MOST_LINES) throw problems.listTooLong(MOST_LINES);
  return sheet.rows.map((row) => row.map(({ text }) => text));
}
