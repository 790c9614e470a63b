import { DEFAULT_KEY } from '#core/margin';
import { z } from 'zod';
import { MarginKey } from '../../contract/margin-key.ts';
import { select, selectOne, type Queries } from '../db/database.ts';

const KeyRow = z.object({ margin_key: MarginKey.nullable() });

/** The margin key of the course that a work belongs to. */
export async function selectMarginKey(db: Queries, submission: string): Promise<MarginKey> {
  const row = await selectOne(
    db,
    KeyRow,
    `select c.margin_key from submissions s join assignments a on a.id = s.assignment join courses c on c.id = a.course
     where s.id = $1`,
    [submission],
  );
  return row?.margin_key ?? [...DEFAULT_KEY];
}

export async function selectCourseKey(db: Queries, course: string): Promise<MarginKey> {
  const row = await selectOne(db, KeyRow, 'select margin_key from courses where id = $1', [course]);
  return row?.margin_key ?? [...DEFAULT_KEY];
}

export async function updateMarginKey(db: Queries, course: string, key: MarginKey): Promise<void> {
  await db.query('update courses set margin_key = $2 where id = $1', [course, JSON.stringify(key)]);
}

/** The kinds that remarks of a course have, with how many; what is put aside counts too, since it can come back. */
export const selectKindsInUse = (db: Queries, course: string): Promise<{ kind: string; remarks: number }[]> =>
  select(
    db,
    z.object({ kind: z.string(), remarks: z.int() }),
    `select r.kind, count(*)::int as remarks from remarks r join submissions s on s.id = r.submission
     join assignments a on a.id = s.assignment where a.course = $1 group by r.kind`,
    [course],
  );
