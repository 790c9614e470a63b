import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { readDocument } from '../server/documents/read.ts';

/** The folio of a document, without what only the screen needs. */
export async function read(file: string): Promise<object> {
  const { folio } = await readDocument(await readFile(file), path.basename(file));
  const { format, title, text, leaves } = folio;
  return { format, title, text, leaves };
}
