import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import { SentMail } from '../../contract/mail.ts';
import { select, selectOne, type Queries } from '../db/database.ts';

/** Seconds until it is tried again after so many tries: a few minutes at first, for as long as two days. */
const PAUSES = [60, 300, 1800, 3600, 6 * 3600, 12 * 3600, 24 * 3600];
/** Seconds after which another process may try what one has begun. */
const CLAIMED = 300;

/** A message to somebody, which goes out with the transaction that it is made in. */
export async function queueMail(
  tx: Queries,
  { person, address, subject, body }: { person: string; address: string; subject: string; body: string },
): Promise<void> {
  await tx.query('insert into mails (id, person, address, subject, body) values ($1, $2, $3, $4, $5)', [
    ...[randomUUID(), person, address, subject, body],
  ]);
}

const Waiting = z.object({ id: Id, address: z.string(), subject: z.string(), body: z.string(), tries: z.int() });
export type WaitingMail = z.infer<typeof Waiting>;

/** The one that waits longest, for whoever asks; the others do not get it meanwhile. */
export const claimMail = (db: Queries): Promise<WaitingMail | undefined> =>
  selectOne(
    db,
    Waiting,
    `update mails set tries = tries + 1, try_at = now() + make_interval(secs => $1)
     where id = (select id from mails where try_at <= now() order by try_at, id limit 1 for update skip locked)
     returning id, address, subject, body, tries`,
    [CLAIMED],
  );

export async function markSent(db: Queries, id: string): Promise<void> {
  await db.query('update mails set sent_at = now(), try_at = null, body = null, refused = null where id = $1', [id]);
}

/** It is tried again after a while, unless whoever refused it means it, or it has been tried for two days. */
export async function markRefused(
  db: Queries,
  { id, tries }: WaitingMail,
  why: string,
  lasting: boolean,
): Promise<void> {
  const pause = lasting ? undefined : PAUSES[tries - 1];
  await db.query(
    `update mails set refused = $2, try_at = now() + make_interval(secs => $3),
       body = case when $3::int is null then null else body end where id = $1`,
    [id, why, pause ?? null],
  );
}

export const selectMails = (db: Queries, most: number): Promise<SentMail[]> =>
  select(
    db,
    SentMail,
    `select id, address, subject, made_at as "madeAt", sent_at as "sentAt", refused, try_at as "tryAt"
     from mails order by made_at desc, id limit $1`,
    [most],
  );

/** What went out, or never will, is forgotten after a month. */
export async function purgeMails(db: Queries): Promise<void> {
  await db.query("delete from mails where try_at is null and made_at < now() - interval '30 days'");
}
