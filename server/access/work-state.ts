import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';

/** The works that something belongs to; `$1` is its id. A reply belongs to none that could still be changed. */
const WORKS = {
  submission: 'select $1::uuid',
  remark: 'select submission from remarks where id = $1',
  recording: 'select submission from remarks where recording = $1',
};

/**
 * Permission was checked before; this also holds against a return or a withdrawal in the same moment, and against another change
 * of the same work: each of them waits until the transaction of the other has ended. Call it first in a transaction.
 */
export async function holdForChange(tx: Queries, kind: keyof typeof WORKS, id: string): Promise<void> {
  const works = await tx.query(
    `select id, returned_at, withdrawn_at, opened_at from submissions where id in (${WORKS[kind]}) for update`,
    [id],
  );
  if (works.some((work) => work.returned_at !== null)) throw problems.returned();
  if (works.some((work) => work.withdrawn_at !== null)) throw problems.notFound();
  for (const work of works) if (work.opened_at === null) await markOpened(tx, String(work.id));
}

/** Its student cannot withdraw it any more. */
export async function markOpened(db: Queries, submission: string): Promise<void> {
  await db.query('update submissions set opened_at = now() where id = $1 and opened_at is null', [submission]);
}
