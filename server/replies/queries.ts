import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';

export interface ReplyToInsert {
  id: string;
  remark: string;
  author: string;
  text: string;
  recording: string | null;
  /** ISO 8601; now where it is not given. */
  madeAt?: string;
}

/** Keeps a reply once, however often it is sent. */
export async function insertReply(tx: Queries, reply: ReplyToInsert): Promise<void> {
  const { id, remark, author, text, recording, madeAt = null } = reply;
  const added = await tx.query(
    `insert into replies (id, remark, author, text, recording, made_at)
     values ($1, $2, $3, $4, $5, coalesce($6::timestamptz, now())) on conflict (id) do nothing returning 1 as one`,
    [id, remark, author, text, recording, madeAt],
  );
  if (added.length > 0) return;
  const same = await tx.query(
    `select 1 as one from replies where id = $1 and remark = $2 and author = $3 and text = $4
       and recording is not distinct from $5`,
    [id, remark, author, text, recording],
  );
  if (same.length === 0) throw problems.idTaken();
}
