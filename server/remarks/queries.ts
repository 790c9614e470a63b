import { z } from 'zod';
import { Anchor } from '../../contract/anchor.ts';
import { Id, Instant } from '../../contract/basics.ts';
import { Kind, Transcript, type Remark, type Reply } from '../../contract/remarks.ts';
import { Sound } from '../../contract/sound.ts';
import { select, selectOne, type Queries } from '../db/database.ts';

const Peaks = Sound.shape.peaks;

const RemarkRow = z.object({
  id: Id,
  author: Id,
  name: z.string(),
  kind: Kind,
  anchor: Anchor,
  sound: z.instanceof(Buffer),
  duration: z.number(),
  peaks: Peaks,
  made_at: Instant,
  transcript: Transcript.nullable(),
  begun_at: Instant.nullable(),
  finished_at: Instant.nullable(),
});

const ReplyRow = z.object({
  id: Id,
  remark: Id,
  author: Id,
  name: z.string(),
  text: z.string(),
  sound: z.instanceof(Buffer).nullable(),
  duration: z.number().nullable(),
  peaks: Peaks.nullable(),
  made_at: Instant,
});

type Wanted = { submission: string; aside?: boolean } | { remark: string };

/** Remarks in the order in which they were made, with their transcripts, replies, and whether the student has heard them. */
export async function selectRemarks(db: Queries, wanted: Wanted): Promise<Remark[]> {
  const [condition, value] =
    'remark' in wanted
      ? ['r.id = $1', wanted.remark]
      : [`r.submission = $1 and r.put_aside_at is ${wanted.aside ? 'not null' : 'null'}`, wanted.submission];
  const rows = await select(
    db,
    RemarkRow,
    `select r.id, r.author, p.name, r.kind, r.anchor, r.sound, r.duration, r.peaks, r.made_at, l.begun_at, l.finished_at,
       case when t.remark is not null then jsonb_build_object(
         'language', t.language, 'text', t.text, 'words', t.words, 'source', t.source) end as transcript
     from remarks r join people p on p.id = r.author join submissions s on s.id = r.submission
     left join transcripts t on t.remark = r.id
     left join listenings l on l.remark = r.id and l.person = s.student
     where ${condition} order by r.made_at, r.id`,
    [value],
  );
  const replies = await select(
    db,
    ReplyRow,
    `select y.id, y.remark, y.author, p.name, y.text, y.sound, y.duration, y.peaks, y.made_at
     from replies y join remarks r on r.id = y.remark join people p on p.id = y.author
     where ${condition} order by y.made_at, y.id`,
    [value],
  );
  return rows.map((row) =>
    remarkOfRow(
      row,
      replies.filter((reply) => reply.remark === row.id),
    ),
  );
}

export const selectRemark = async (db: Queries, remark: string): Promise<Remark | undefined> =>
  (await selectRemarks(db, { remark }))[0];

const remarkOfRow = (row: z.infer<typeof RemarkRow>, replies: z.infer<typeof ReplyRow>[]): Remark => ({
  id: row.id,
  author: { id: row.author, name: row.name },
  kind: row.kind,
  anchor: row.anchor,
  sound: { sha256: row.sound.toString('hex'), duration: row.duration, peaks: row.peaks },
  transcript: row.transcript,
  madeAt: row.made_at,
  heard: row.begun_at === null ? null : { begunAt: row.begun_at, finishedAt: row.finished_at },
  replies: replies.map(replyOfRow),
});

const replyOfRow = (row: z.infer<typeof ReplyRow>): Reply => ({
  id: row.id,
  author: { id: row.author, name: row.name },
  at: row.made_at,
  text: row.text,
  sound:
    row.sound && row.duration !== null && row.peaks
      ? { sha256: row.sound.toString('hex'), duration: row.duration, peaks: row.peaks }
      : null,
});

export interface RemarkToInsert {
  id: string;
  submission: string;
  author: string;
  kind: Kind;
  anchor: z.infer<typeof Anchor>;
  sound: Buffer;
  duration: number;
  peaks: number[];
  /** ISO 8601; now where it is not given. */
  madeAt?: string;
}

/** @returns false where a remark of this id is there already */
export async function insertRemark(tx: Queries, remark: RemarkToInsert): Promise<boolean> {
  const rows = await tx.query(
    `insert into remarks (id, submission, author, kind, anchor, sound, duration, peaks, made_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, coalesce($9::timestamptz, now()))
     on conflict (id) do nothing returning 1 as one`,
    [
      remark.id,
      remark.submission,
      remark.author,
      remark.kind,
      JSON.stringify(remark.anchor),
      remark.sound,
      remark.duration,
      JSON.stringify(remark.peaks),
      remark.madeAt ?? null,
    ],
  );
  return rows.length > 0;
}

/** Whether the remark that is there already is the same recording about the same work. */
export async function isSameRemark(tx: Queries, { id, submission, author, sound }: RemarkToInsert): Promise<boolean> {
  const rows = await tx.query(
    'select 1 as one from remarks where id = $1 and submission = $2 and author = $3 and sound = $4',
    [id, submission, author, sound],
  );
  return rows.length > 0;
}

export async function updateKind(db: Queries, remark: string, kind: Kind): Promise<void> {
  await db.query('update remarks set kind = $2 where id = $1', [remark, kind]);
}

export async function updateAside(db: Queries, remark: string, aside: boolean): Promise<void> {
  await db.query(
    'update remarks set put_aside_at = case when $2 then coalesce(put_aside_at, now()) end where id = $1',
    [remark, aside],
  );
}

export async function upsertTranscript(
  db: Queries,
  remark: string,
  transcript: z.infer<typeof Transcript>,
): Promise<void> {
  await db.query(
    `insert into transcripts (remark, language, text, words, source) values ($1, $2, $3, $4, $5)
     on conflict (remark) do update set language = excluded.language, text = excluded.text, words = excluded.words,
       source = excluded.source, changed_at = now()`,
    [remark, transcript.language, transcript.text, JSON.stringify(transcript.words), transcript.source],
  );
}

export async function upsertListening(db: Queries, remark: string, person: string, finished: boolean): Promise<void> {
  await db.query(
    `insert into listenings (remark, person, finished_at) values ($1, $2, case when $3 then now() end)
     on conflict (remark, person) do update set finished_at = coalesce(listenings.finished_at, excluded.finished_at)`,
    [remark, person, finished],
  );
}

const SoundRow = z.object({ sound: z.instanceof(Buffer).nullable() });

export async function selectSound(db: Queries, table: 'remarks' | 'replies', id: string): Promise<Buffer | undefined> {
  const row = await selectOne(db, SoundRow, `select sound from ${table} where id = $1`, [id]);
  return row?.sound ?? undefined;
}

/** What was put aside can be brought back for 30 days; then it goes. */
export async function purgeRemarks(db: Queries): Promise<void> {
  await db.query("delete from remarks where put_aside_at < now() - interval '30 days'");
}
