import { folioOf, type Folio } from '#core/folio';
import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { readDocument } from '../server/documents/read.ts';

/** The folio of one document. */
export async function folioOfFile(file: string): Promise<Folio> {
  const { file: read } = await readDocument(await readFile(file), path.basename(file));
  return folioOf([read]);
}

/** The folio of a document, without what only the screen needs. */
export async function read(file: string): Promise<object> {
  const { title, language, files, text, leaves } = await folioOfFile(file);
  return {
    format: files[0]!.format,
    title,
    ...(language !== undefined && { language }),
    text,
    leaves: leaves.map(({ label, kind, start, end }) => ({ label, kind, start, end })),
  };
}
