import { z } from 'zod';
import type { Anchor } from '../../contract/anchor.ts';
import { Id } from '../../contract/basics.ts';
import type { Kind } from '../../contract/margin-key.ts';
import { Remark } from '../../contract/remarks.ts';
import { SaidContent, type SaidWords } from '../../contract/said.ts';
import { shownId, shownName, shownRemark, type Reader } from '../access/visible.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { recordingJson } from '../recordings/queries.ts';

type Wanted = { submission: string; aside?: boolean } | { remarks: readonly string[] };

/** Somebody `who` who said something about a work `s` in `a`: its teachers may not see yet which student it is. */
const authorJson = ({ teacher }: Reader, who: string): string => {
  const named = `jsonb_build_object('id', ${who}.id, 'name', ${who}.name)`;
  const shown = `jsonb_build_object('id', ${shownId(who)}, 'name', ${shownName(who)})`;
  return teacher ? `case when ${who}.id = s.student then ${shown} else ${named} end` : named;
};

/** A remark `r` by `p` with its recording `g`, its file `m` and its answers, as the contract has it. */
const remarkJson = (reader: Reader): string => `r.content || jsonb_build_object(
  'id', r.id, 'author', ${authorJson(reader, 'p')}, 'kind', r.kind, 'anchor', r.anchor,
  'criterion', r.criterion, 'private', r.private, 'madeAt', r.made_at, 'takenAt', r.taken_at,
  'dealtAt', r.dealt_at,
  'settled', (select jsonb_build_object('at', r.settled_at, 'by', ${authorJson(reader, 'w')})
    from people w where w.id = r.settled_by),
  'recording', ${recordingJson('g', reader, 2)},
  'file', case when r.file is not null then
    jsonb_build_object('sha256', encode(r.file, 'hex'), 'name', r.file_name, 'byteLength', m.byte_length) end,
  'replies', (select coalesce(jsonb_agg(jsonb_build_object('id', y.id, 'at', y.made_at, 'text', y.text,
      'author', ${authorJson(reader, 'w')}, 'recording', ${recordingJson('h', reader, 2)})
      order by y.made_at, y.id), '[]')
    from replies y join people w on w.id = y.author left join recordings h on h.id = y.recording where y.remark = r.id))`;

/**
 * Remarks in the order in which they were made, with their recordings, their answers, and whether they have been heard.
 * The student gets none that is private, and does not learn what was cut.
 */
export async function selectRemarks(db: Queries, wanted: Wanted, reader: Reader): Promise<Remark[]> {
  const [which, value] =
    'remarks' in wanted
      ? ['r.id in (select value::uuid from jsonb_array_elements_text($1::jsonb))', JSON.stringify(wanted.remarks)]
      : [`r.submission = $1 and r.put_aside_at is ${wanted.aside ? 'not null' : 'null'}`, wanted.submission];
  const rows = await select(
    db,
    z.object({ remark: Remark }),
    `select ${remarkJson(reader)} as remark
     from remarks r join people p on p.id = r.author join submissions s on s.id = r.submission
     join assignments a on a.id = s.assignment left join recordings g on g.id = r.recording left join media m on m.sha256 = r.file
     where ${which} and ${shownRemark(reader)} and $2::uuid is not null order by r.made_at, r.id`,
    [value, reader.person],
  );
  return rows.map(({ remark }) => remark);
}

export const selectRemark = async (db: Queries, remark: string, reader: Reader): Promise<Remark | undefined> =>
  (await selectRemarks(db, { remarks: [remark] }, reader))[0];

export interface RemarkToInsert {
  id: string;
  submission: string;
  author: string;
  kind: Kind;
  anchor: z.infer<typeof Anchor>;
  words: SaidWords;
  recording: string | null;
  file: { sha256: Buffer; name: string } | null;
  /** ISO 8601; now where it is not given. */
  madeAt?: string;
  /** SHA-256 of the request, where it may come again. */
  madeFrom?: Buffer | null;
}

/** @returns false where a remark of this id is there already */
export async function insertRemark(tx: Queries, remark: RemarkToInsert): Promise<boolean> {
  const { id, submission, author, kind, anchor, words, recording, file, madeAt = null, madeFrom = null } = remark;
  const rows = await tx.query(
    `insert into remarks (id, submission, author, kind, anchor, recording, file, file_name, content, stamp_picture, private,
       criterion, made_at, made_from)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, coalesce($13::timestamptz, now()), $14)
     on conflict (id) do nothing returning 1 as one`,
    [
      ...[id, submission, author, kind, JSON.stringify(anchor), recording, file?.sha256 ?? null, file?.name ?? null],
      ...[...wordValues(words), madeAt, madeFrom],
    ],
  );
  return rows.length > 0;
}

/** In the order content, stamp_picture, private, criterion. */
const wordValues = (words: SaidWords): unknown[] => [
  JSON.stringify(SaidContent.parse(words)),
  words.stamp && 'picture' in words.stamp ? Buffer.from(words.stamp.picture, 'hex') : null,
  words.private,
  words.criterion,
];

/** Whether the remark that is there already was made by the same request. What it says may have been changed since. */
export async function isSameRemark(
  tx: Queries,
  { id, submission, author, recording, madeFrom = null }: RemarkToInsert,
): Promise<boolean> {
  const rows = await tx.query(
    `select 1 as one from remarks where id = $1 and submission = $2 and author = $3 and recording is not distinct from $4
       and coalesce(made_from = $5, true)`,
    [id, submission, author, recording, madeFrom],
  );
  return rows.length > 0;
}

export async function updateWords(
  db: Queries,
  remark: string,
  { kind, anchor, words }: Pick<RemarkToInsert, 'kind' | 'anchor' | 'words'>,
): Promise<void> {
  await db.query(
    'update remarks set kind = $2, anchor = $3, content = $4, stamp_picture = $5, private = $6, criterion = $7 where id = $1',
    [remark, kind, JSON.stringify(anchor), ...wordValues(words)],
  );
}

export async function updateTaken(db: Queries, remark: string, taken: boolean): Promise<boolean> {
  const rows = await db.query(
    `update remarks set taken_at = case when $2 then coalesce(taken_at, now()) end
     where id = $1 and content ->> 'suggestion' is not null returning 1 as one`,
    [remark, taken],
  );
  return rows.length > 0;
}

export async function updateDealt(db: Queries, remark: string, dealt: boolean): Promise<void> {
  await db.query('update remarks set dealt_at = case when $2 then coalesce(dealt_at, now()) end where id = $1', [
    remark,
    dealt,
  ]);
}

export const selectRemarkPlace = (
  db: Queries,
  remark: string,
): Promise<{ submission: string; author: string } | undefined> =>
  selectOne(db, z.object({ submission: Id, author: Id }), 'select submission, author from remarks where id = $1', [
    remark,
  ]);

export async function hasCriterion(db: Queries, submission: string, criterion: string): Promise<boolean> {
  const rows = await db.query(
    'select 1 as one from criteria k join submissions s on s.assignment = k.assignment where s.id = $1 and k.id = $2',
    [submission, criterion],
  );
  return rows.length > 0;
}

/** Whether a picture is one of this person's stamps, or was when they stamped it. */
export async function mayStamp(db: Queries, person: string, sha256: string): Promise<boolean> {
  const rows = await db.query(
    `select 1 as one from stamp_pictures where owner = $1 and file = $2
     union select 1 from remarks where author = $1 and stamp_picture = $2`,
    [person, Buffer.from(sha256, 'hex')],
  );
  return rows.length > 0;
}

export async function updateAside(db: Queries, remark: string, aside: boolean): Promise<void> {
  await db.query(
    'update remarks set put_aside_at = case when $2 then coalesce(put_aside_at, now()) end where id = $1',
    [remark, aside],
  );
}

const MediaRow = z.object({
  file: z.instanceof(Buffer).nullable(),
  name: z.string().nullable(),
  stamp: z.instanceof(Buffer).nullable(),
});

/** The SHA-256 of what belongs to a remark beside its recording. */
export const selectAttached = (db: Queries, remark: string): Promise<z.infer<typeof MediaRow> | undefined> =>
  selectOne(db, MediaRow, 'select file, file_name as name, stamp_picture as stamp from remarks where id = $1', [
    remark,
  ]);

/** An edited recording is kept as it was spoken until 30 days after the return; then only what the student hears is left. */
export async function purgeOriginals(db: Queries): Promise<void> {
  await db.query(
    `update recordings g set original = null, edit = null from remarks r join submissions s on s.id = r.submission
     where r.recording = g.id and s.returned_at < now() - interval '30 days' and g.original is not null`,
  );
}

/** What was put aside can be brought back for 30 days; then it goes. */
export async function purgeRemarks(db: Queries): Promise<void> {
  await db.query("delete from remarks where put_aside_at < now() - interval '30 days'");
}

export const MEDIA = ['remarks.file', 'remarks.stamp_picture'];

/** @param person who says so; null where something more is to be said */
export async function updateSettled(db: Queries, remark: string, person: string | null): Promise<void> {
  await db.query(
    `update remarks set settled_by = $2, settled_at = case when $2::uuid is not null then now() end
     where id = $1 and (settled_by is null) <> ($2::uuid is null)`,
    [remark, person],
  );
}
