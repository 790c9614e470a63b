import { createHash } from 'node:crypto';
import { z } from 'zod';
import { select, selectOne, type Queries } from '../db/database.ts';
import type { UploadedFile } from '../uploads/uploaded.ts';

export const CHUNK_BYTES = 256 * 1024;

export interface Medium {
  mediaType: string;
  byteLength: number;
}

const MediumRow = z.object({ media_type: z.string(), byte_length: z.int() });
const ChunkRow = z.object({ position: z.int(), bytes: z.instanceof(Buffer) });

/**
 * Keeps bytes under their SHA-256 and answers with it. The same bytes are kept once; what broke off goes on where it was. Call it
 * before the transaction that refers to them, so that others get their turn between the pieces; within it they are only found.
 */
export async function keepMedium(queries: Queries, bytes: Buffer, mediaType: string): Promise<Buffer> {
  const sha256 = createHash('sha256').update(bytes).digest();
  const [medium] = await queries.query(
    `insert into media (sha256, media_type, byte_length, complete) values ($1, $2, $3, false)
     on conflict (sha256) do update set kept_at = now() returning complete`,
    [sha256, mediaType, bytes.length],
  );
  if (medium!.complete === true) return sha256;
  for (let position = 0; position * CHUNK_BYTES < bytes.length; position++) {
    const chunk = bytes.subarray(position * CHUNK_BYTES, (position + 1) * CHUNK_BYTES);
    await queries.query(
      'insert into media_chunks (sha256, position, bytes) values ($1, $2, $3) on conflict do nothing',
      [sha256, position, chunk],
    );
  }
  await queries.query('update media set complete = true where sha256 = $1', [sha256]);
  return sha256;
}

/** Keeps what has come in as an upload: its bytes stay where they are. */
export async function keepUploaded(
  queries: Queries,
  { sha256, byteLength, upload }: Pick<UploadedFile, 'sha256' | 'byteLength' | 'upload'>,
  mediaType: string,
): Promise<Buffer> {
  await queries.query(
    `insert into media (sha256, media_type, byte_length, complete, upload) values ($1, $2, $3, true, $4)
     on conflict (sha256) do update set kept_at = now(), complete = true,
       upload = case when media.complete then media.upload else excluded.upload end`,
    [sha256, mediaType, byteLength, upload],
  );
  return sha256;
}

export async function findMedium(db: Queries, sha256: Buffer): Promise<Medium | undefined> {
  const row = await selectOne(
    db,
    MediumRow,
    'select media_type, byte_length from media where sha256 = $1 and complete',
    [sha256],
  );
  return row && { mediaType: row.media_type, byteLength: row.byte_length };
}

/** The bytes from `start` to `end` (inclusive, as in HTTP ranges), chunk by chunk. */
export async function* readMedium(db: Queries, sha256: Buffer, start: number, end: number): AsyncGenerator<Buffer> {
  for (let position = Math.floor(start / CHUNK_BYTES); position * CHUNK_BYTES <= end; position++) {
    const [chunk] = await select(
      db,
      ChunkRow,
      `select c.position, c.bytes from media_chunks c join media m using (sha256)
       where sha256 = $1 and position = $2 and m.upload is null
       union all
       select c.position, c.bytes from media m join upload_chunks c on c.upload = m.upload
       where m.sha256 = $1 and c.position = $2`,
      [sha256, position],
    );
    if (!chunk) throw new Error(`Chunk ${position} of ${sha256.toString('hex')} is missing`);
    const from = position * CHUNK_BYTES;
    yield chunk.bytes.subarray(Math.max(0, start - from), end - from + 1);
  }
}

/** Everything at once, for small media. */
export async function readWholeMedium(db: Queries, sha256: Buffer, { byteLength }: Medium): Promise<Buffer> {
  const parts: Buffer[] = [];
  for await (const part of readMedium(db, sha256, 0, byteLength - 1)) parts.push(part);
  return Buffer.concat(parts);
}

/**
 * Deletes media that nothing refers to any more, a day after they were kept: somebody may be about to.
 * @param holders every column that can hold one, as `table.column`
 */
export async function purgeMedia(db: Queries, holders: readonly string[]): Promise<void> {
  await db.query(
    `delete from media m where m.kept_at < now() - interval '1 day' and ${heldByNone('m.sha256', holders)}`,
  );
}

/** A condition: no row of these columns, given as `table.column`, refers to a value. */
export const heldByNone = (value: string, holders: readonly string[]): string =>
  holders
    .map((holder) => holder.split('.'))
    .map(([table, column]) => `not exists (select from ${table} h where h.${column} = ${value})`)
    .join(' and ');
