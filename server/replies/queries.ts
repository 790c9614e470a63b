import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { keepMedium } from '../media/media.ts';

export interface SpokenPart {
  bytes: Buffer;
  mediaType: string;
  duration: number;
  peaks: number[];
}

export interface ReplyToInsert {
  id: string;
  remark: string;
  author: string;
  text: string;
  spoken: SpokenPart | null;
  /** ISO 8601; now where it is not given. */
  madeAt?: string;
}

/** Keeps a reply and its sound together, once however often it is sent. */
export async function insertReply(tx: Queries, reply: ReplyToInsert): Promise<void> {
  const sound = reply.spoken && (await keepMedium(tx, reply.spoken.bytes, reply.spoken.mediaType));
  const added = await tx.query(
    `insert into replies (id, remark, author, text, sound, duration, peaks, made_at)
     values ($1, $2, $3, $4, $5, $6, $7, coalesce($8::timestamptz, now()))
     on conflict (id) do nothing returning 1 as one`,
    [
      reply.id,
      reply.remark,
      reply.author,
      reply.text,
      sound,
      reply.spoken?.duration ?? null,
      reply.spoken && JSON.stringify(reply.spoken.peaks),
      reply.madeAt ?? null,
    ],
  );
  if (added.length > 0) return;
  const same = await tx.query('select 1 as one from replies where id = $1 and remark = $2 and author = $3', [
    reply.id,
    reply.remark,
    reply.author,
  ]);
  if (same.length === 0) throw problems.idTaken();
}
