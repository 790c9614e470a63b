import { createHash, type Hash } from 'node:crypto';
import type { Readable } from 'node:stream';
import { z } from 'zod';
import { selectOne, type Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { CHUNK_BYTES } from '../media/media.ts';

/** What a person has sent, or is sending. */
export interface Upload {
  id: string;
  owner: string;
  /** As announced. */
  byteLength: number;
}

const bytes = z.coerce.number();
const UploadRow = z.object({
  byteLength: bytes,
  received: bytes,
  sha256: z.instanceof(Buffer).nullable(),
  head: z.instanceof(Buffer).nullable(),
});
type UploadRow = z.infer<typeof UploadRow>;

/** So much is enough to tell what a file is. */
const HEAD_BYTES = 8192;

/** Hashes of what is coming in right now, and how far they are. */
const hashes = new Map<string, { hash: Hash; offset: number }>();
const MOST_HASHES = 200;

export async function insertUpload(db: Queries, { id, owner, byteLength }: Upload): Promise<void> {
  await db.query('insert into uploads (id, owner, byte_length) values ($1, $2, $3)', [id, owner, byteLength]);
}

export const selectUpload = (db: Queries, id: string): Promise<UploadRow | undefined> =>
  selectOne(
    db,
    UploadRow,
    `select u.byte_length as "byteLength", u.received, u.sha256, substring(c.bytes from 1 for ${HEAD_BYTES}) as head
     from uploads u left join upload_chunks c on c.upload = u.id and c.position = 0 where u.id = $1`,
    [id],
  );

/**
 * Keeps what comes, in short statements, from an offset on. What has come is kept even where the stream breaks off.
 * @returns the offset after it
 */
export async function receive(db: Queries, id: string, from: number, stream: Readable): Promise<number> {
  const known = hashes.get(id);
  const hash = from === 0 ? createHash('sha256') : known?.offset === from ? known.hash : undefined;
  let offset = from;
  let waiting: Buffer[] = [];
  const room = (): number => CHUNK_BYTES - (offset % CHUNK_BYTES);
  const flush = async (): Promise<void> => {
    const piece = Buffer.concat(waiting);
    waiting = [];
    if (piece.length === 0) return;
    await appendPiece(db, id, offset, piece);
    offset += piece.length;
    hash?.update(piece);
    remember(id, hash, offset);
  };
  let held = 0;
  try {
    for await (const chunk of stream as AsyncIterable<Buffer>) {
      for (let rest = chunk; rest.length > 0;) {
        const part = rest.subarray(0, room() - held);
        rest = rest.subarray(part.length);
        waiting.push(part);
        held += part.length;
        if (held < room()) continue;
        await flush();
        held = 0;
      }
    }
  } finally {
    await flush();
  }
  return offset;
}

function remember(id: string, hash: Hash | undefined, offset: number): void {
  hashes.delete(id);
  if (!hash) return;
  hashes.set(id, { hash, offset });
  const [oldest] = hashes.keys();
  if (hashes.size > MOST_HASHES) hashes.delete(oldest!);
}

/** One piece, which lies within one chunk; Base64 is twice as quick in the embedded database. @throws ProblemError where another request has gone on meanwhile */
async function appendPiece(db: Queries, id: string, offset: number, piece: Buffer): Promise<void> {
  const rows = await db.query(
    `with grown as (update uploads set received = received + $4 where id = $1 and received = $2 returning id)
     insert into upload_chunks (upload, position, bytes) select id, $3, decode($5, 'base64') from grown
     on conflict (upload, position) do update set bytes = upload_chunks.bytes || excluded.bytes returning 1 as one`,
    [id, offset, Math.floor(offset / CHUNK_BYTES), piece.length, piece.toString('base64')],
  );
  if (rows.length === 0) throw problems.uploadGone();
}

/** Says that an upload is whole, and what its SHA-256 is. How long a file of a form is, is known only now. */
export async function finishUpload(db: Queries, id: string, byteLength: number): Promise<Buffer> {
  const known = hashes.get(id);
  hashes.delete(id);
  const sha256 =
    byteLength > 0 && known?.offset === byteLength ? known.hash.digest() : await hashOf(db, id, byteLength);
  await db.query('update uploads set sha256 = $2, byte_length = received where id = $1', [id, sha256]);
  return sha256;
}

/** Where it came in parts, or to another process. */
async function hashOf(db: Queries, id: string, byteLength: number): Promise<Buffer> {
  const hash = createHash('sha256');
  for await (const chunk of readUpload(db, id, byteLength)) hash.update(chunk);
  return hash.digest();
}

export async function* readUpload(db: Queries, id: string, byteLength: number): AsyncGenerator<Buffer> {
  for (let position = 0; position * CHUNK_BYTES < byteLength; position++) {
    const row = await selectOne(
      db,
      z.object({ bytes: z.instanceof(Buffer) }),
      'select bytes from upload_chunks where upload = $1 and position = $2',
      [id, position],
    );
    if (!row) throw problems.uploadGone();
    yield row.bytes;
  }
}

export async function deleteUpload(db: Queries, id: string): Promise<void> {
  hashes.delete(id);
  await db.query('delete from uploads where id = $1 and not exists (select from media where upload = $1)', [id]);
}

/** How many bytes a person has sent within a day, and is going to; what broke off counts as far as it came. */
export async function selectSentToday(db: Queries, person: string): Promise<number> {
  const row = await selectOne(
    db,
    z.object({ sent: bytes }),
    `select coalesce(sum(case when sha256 is null and made_at < now() - interval '1 hour' then received else byte_length end), 0)
       as sent
     from uploads where owner = $1 and made_at > now() - interval '1 day'`,
    [person],
  );
  return row!.sent;
}

/** What nothing came to refer to goes after a day, and what did not come to its end after three. */
export async function purgeUploads(db: Queries): Promise<void> {
  await db.query(
    `delete from uploads u where made_at < now() - case when sha256 is null then interval '3 days' else interval '1 day' end
       and not exists (select from media m where m.upload = u.id)`,
  );
}
