import { Handout } from '../../contract/handouts.ts';
import { GIVEN_TO } from '../access/visible.ts';
import { select, selectOne, type Queries } from '../db/database.ts';

const COLUMNS = `h.id, h.name, m.byte_length as "byteLength", h.given`;

export const MEDIA = ['handouts.file'];

/** What an assignment hands out, or has handed out to one student. */
export const selectHandouts = (db: Queries, assignment: string, student?: string): Promise<Handout[]> =>
  select(
    db,
    Handout,
    `select ${COLUMNS} from handouts h join media m on m.sha256 = h.file
     where h.assignment = $2 and h.put_aside_at is null and ($1::uuid is null or ${GIVEN_TO}) order by h.made_at, h.id`,
    [student ?? null, assignment],
  );

export const selectHandout = (db: Queries, id: string): Promise<Handout | undefined> =>
  selectOne(db, Handout, `select ${COLUMNS} from handouts h join media m on m.sha256 = h.file where h.id = $1`, [id]);

/** @returns false where one of this id is in another assignment, or another file */
export async function insertHandout(
  tx: Queries,
  { id, assignment, name, file, given }: Omit<Handout, 'byteLength'> & { assignment: string; file: Buffer },
): Promise<boolean> {
  const rows = await tx.query(
    `insert into handouts as h (id, assignment, name, file, given) values ($1, $2, $3, $4, $5)
     on conflict (id) do update set given = excluded.given where h.assignment = excluded.assignment and h.file = excluded.file
     returning 1 as one`,
    [id, assignment, name, file, given],
  );
  return rows.length > 0;
}

export async function updateHandout(
  db: Queries,
  id: string,
  { given, aside }: { given?: Handout['given'] | undefined; aside?: boolean | undefined },
): Promise<void> {
  await db.query(
    `update handouts set given = coalesce($2, given), put_aside_at = case when $3::boolean is null then put_aside_at
       when $3 then coalesce(put_aside_at, now()) end where id = $1`,
    [id, given ?? null, aside ?? null],
  );
}

export async function copyHandouts(tx: Queries, from: string, to: string): Promise<void> {
  await tx.query(
    `insert into handouts (id, assignment, name, file, given, made_at)
     select gen_random_uuid(), $2, name, file, given, made_at from handouts where assignment = $1 and put_aside_at is null`,
    [from, to],
  );
}

/** What was put aside can be brought back for 30 days; then it goes. */
export async function purgeHandouts(db: Queries): Promise<void> {
  await db.query("delete from handouts where put_aside_at < now() - interval '30 days'");
}
