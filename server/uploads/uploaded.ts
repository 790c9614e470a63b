import { visibleName, wellFormed } from '#core/text';
import type { Encoding, WithUploads } from '../../contract/uploads.ts';
import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { readUpload, selectUpload } from './queries.ts';

/** A file that has come in. Its bytes are in the database: read them only when it is their turn. */
export interface UploadedFile {
  name: string;
  upload: string;
  sha256: Buffer;
  byteLength: number;
  /** Where a person has said how a text is to be read. */
  encoding?: Encoding | undefined;
  /** Its first bytes, which tell what it is. */
  head: Buffer;
}

export async function bytesOf(db: Queries, { upload, byteLength }: UploadedFile): Promise<Buffer> {
  const parts: Buffer[] = [];
  for await (const part of readUpload(db, upload, byteLength)) parts.push(part);
  return Buffer.concat(parts);
}

/** @throws ProblemError where it is not there, or not whole */
export async function findUploaded(
  db: Queries,
  { upload, name, encoding }: WithUploads['uploads'][number],
): Promise<UploadedFile> {
  const row = await selectUpload(db, upload);
  if (!row?.sha256) throw problems.uploadGone();
  const { sha256, byteLength, head } = row;
  return {
    name: visibleName(wellFormed(name)) || 'file',
    upload,
    encoding,
    sha256,
    byteLength,
    head: head ?? Buffer.alloc(0),
  };
}
