import { z } from 'zod';
import { Anchor } from '../../contract/anchor.ts';
import { Id, Instant } from '../../contract/basics.ts';
import { Kind } from '../../contract/margin-key.ts';
import { RemarkContent, SpeechJob, Transcript, Translation, type Remark, type Reply } from '../../contract/remarks.ts';
import { Sound, SoundEdit } from '../../contract/sound.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { TRANSCRIPT_JSON } from './transcripts.ts';

const Peaks = Sound.shape.peaks;

const RemarkRow = z
  .object({
    id: Id,
    author: Id,
    author_name: z.string(),
    kind: Kind,
    anchor: Anchor,
    sound: z.instanceof(Buffer).nullable(),
    duration: z.number().nullable(),
    peaks: Peaks.nullable(),
    picture: Sound.shape.picture,
    edit: SoundEdit.nullable(),
    file: z.instanceof(Buffer).nullable(),
    file_name: z.string().nullable(),
    byte_length: z.int().nullable(),
    made_at: Instant,
    taken_at: Instant.nullable(),
    transcript: Transcript.nullable(),
    translations: z.array(Translation),
    speech: SpeechJob.nullable(),
    begun_at: Instant.nullable(),
    finished_at: Instant.nullable(),
  })
  .extend(RemarkContent.shape);

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

export type Reader = 'teacher' | 'student';

type Wanted = { submission: string; aside?: boolean } | { remarks: readonly string[] };

/**
 * Remarks in the order in which they were made, with their transcripts, replies, and whether the student has heard them.
 * The student gets none that is private, and does not learn what was cut.
 */
export async function selectRemarks(db: Queries, wanted: Wanted, reader: Reader = 'teacher'): Promise<Remark[]> {
  const [which, value] =
    'remarks' in wanted
      ? ['r.id in (select value::uuid from jsonb_array_elements_text($1::jsonb))', JSON.stringify(wanted.remarks)]
      : [`r.submission = $1 and r.put_aside_at is ${wanted.aside ? 'not null' : 'null'}`, wanted.submission];
  const condition = reader === 'student' ? `${which} and not r.private` : which;
  const rows = await select(
    db,
    RemarkRow,
    `select r.id, r.author, p.name as author_name, r.kind, r.anchor, r.sound, r.duration, r.peaks, r.picture,
       ${reader === 'student' ? 'null' : 'r.edit'} as edit, r.name, r.text, r.link, r.reaction, r.suggestion, r.stamp, r.private, r.tags,
       r.criterion, r.file, r.file_name, m.byte_length, r.made_at, r.taken_at, l.begun_at, l.finished_at,
       ${TRANSCRIPT_JSON} as transcript,
       (select coalesce(jsonb_agg(jsonb_build_object('language', x.language, 'text', x.text, 'source', x.source,
         'engine', x.engine) order by x.language), '[]') from translations x where x.remark = r.id) as translations,
       ${
         reader === 'student'
           ? 'null::jsonb'
           : `case when j.remark is not null then
                jsonb_build_object('task', j.task, 'state', j.state, 'reason', j.reason, 'progress', j.progress) end`
       } as speech
     from remarks r join people p on p.id = r.author join submissions s on s.id = r.submission
     left join transcripts t on t.remark = r.id left join media m on m.sha256 = r.file
     left join speech_jobs j on j.remark = r.id
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

export const selectRemark = async (db: Queries, remark: string, reader?: Reader): Promise<Remark | undefined> =>
  (await selectRemarks(db, { remarks: [remark] }, reader))[0];

const remarkOfRow = (row: z.infer<typeof RemarkRow>, replies: z.infer<typeof ReplyRow>[]): Remark => ({
  id: row.id,
  author: { id: row.author, name: row.author_name },
  kind: row.kind,
  anchor: row.anchor,
  sound: soundOfRow(row),
  edit: row.edit,
  name: row.name,
  text: row.text,
  link: row.link,
  reaction: row.reaction,
  suggestion: row.suggestion,
  stamp: row.stamp,
  private: row.private,
  tags: row.tags,
  criterion: row.criterion,
  file:
    row.file && row.file_name !== null && row.byte_length !== null
      ? { sha256: row.file.toString('hex'), name: row.file_name, byteLength: row.byte_length }
      : null,
  transcript: row.transcript,
  translations: row.translations,
  speech: row.speech,
  madeAt: row.made_at,
  takenAt: row.taken_at,
  heard: row.begun_at === null ? null : { begunAt: row.begun_at, finishedAt: row.finished_at },
  replies: replies.map(replyOfRow),
});

interface SoundRow {
  sound: Buffer | null;
  duration: number | null;
  peaks: number[] | null;
  picture?: Sound['picture'];
}

const soundOfRow = ({ sound, duration, peaks, picture }: SoundRow): Sound | null =>
  sound && duration !== null && peaks
    ? { sha256: sound.toString('hex'), duration, peaks, picture: picture ?? null }
    : null;

const replyOfRow = (row: z.infer<typeof ReplyRow>): Reply => ({
  id: row.id,
  author: { id: row.author, name: row.name },
  at: row.made_at,
  text: row.text,
  sound: soundOfRow(row),
});

export interface RemarkSound {
  sha256: Buffer;
  /** Seconds. */
  duration: number;
  peaks: number[];
  picture: Sound['picture'];
}

export interface RemarkToInsert {
  id: string;
  submission: string;
  author: string;
  kind: Kind;
  anchor: z.infer<typeof Anchor>;
  content: RemarkContent;
  sound: RemarkSound | null;
  edit: SoundEdit | null;
  file: { sha256: Buffer; name: string } | null;
  /** ISO 8601; now where it is not given. */
  madeAt?: string;
}

/** @returns false where a remark of this id is there already */
export async function insertRemark(tx: Queries, remark: RemarkToInsert): Promise<boolean> {
  const { sound, content, file } = remark;
  const rows = await tx.query(
    `insert into remarks (id, submission, author, kind, anchor, sound, duration, peaks, picture, edit, file, file_name,
       name, text, link, reaction, suggestion, stamp, stamp_picture, private, tags, criterion, made_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $19, $20, $21, $22,
       coalesce($23::timestamptz, now()))
     on conflict (id) do nothing returning 1 as one`,
    [
      remark.id,
      remark.submission,
      remark.author,
      remark.kind,
      JSON.stringify(remark.anchor),
      sound?.sha256 ?? null,
      sound?.duration ?? null,
      sound && JSON.stringify(sound.peaks),
      sound?.picture ?? null,
      remark.edit && JSON.stringify(remark.edit),
      file?.sha256 ?? null,
      file?.name ?? null,
      ...contentValues(content),
      remark.madeAt ?? null,
    ],
  );
  return rows.length > 0;
}

/** In the order name, text, link, reaction, suggestion, stamp, stamp_picture, private, tags, criterion. */
const contentValues = (content: RemarkContent): unknown[] => [
  content.name,
  content.text,
  content.link,
  content.reaction,
  content.suggestion,
  content.stamp && JSON.stringify(content.stamp),
  content.stamp && 'picture' in content.stamp ? Buffer.from(content.stamp.picture, 'hex') : null,
  content.private,
  JSON.stringify(content.tags),
  content.criterion,
];

/**
 * Whether the remark that is there already is the same about the same work: the same recording, as it was sent first, and the
 * same author. What it says may have been changed since.
 */
export async function isSameRemark(tx: Queries, { id, submission, author, sound }: RemarkToInsert): Promise<boolean> {
  const rows = await tx.query(
    `select 1 as one from remarks where id = $1 and submission = $2 and author = $3
       and (sound is not distinct from $4 or original is not distinct from $4 or edit is not null)`,
    [id, submission, author, sound?.sha256 ?? null],
  );
  return rows.length > 0;
}

export async function updateContent(
  db: Queries,
  remark: string,
  { kind, anchor, content }: Pick<RemarkToInsert, 'kind' | 'anchor' | 'content'>,
): Promise<void> {
  await db.query(
    `update remarks set kind = $2, anchor = $3, name = $4, text = $5, link = $6, reaction = $7, suggestion = $8, stamp = $9,
       stamp_picture = $10, private = $11, tags = $12, criterion = $13 where id = $1`,
    [remark, kind, JSON.stringify(anchor), ...contentValues(content)],
  );
}

/** The first rendition makes what was there the original. */
export async function updateSound(db: Queries, remark: string, sound: RemarkSound, edit: SoundEdit): Promise<void> {
  await db.query(
    `update remarks set original = coalesce(original, sound), sound = $2, duration = $3, peaks = $4, edit = $5 where id = $1`,
    [remark, sound.sha256, sound.duration, JSON.stringify(sound.peaks), JSON.stringify(edit)],
  );
}

/** The recording as it was spoken; one that is there already stays. */
export async function updateOriginal(db: Queries, remark: string, original: Buffer): Promise<void> {
  await db.query('update remarks set original = coalesce(original, $2) where id = $1', [remark, original]);
}

export async function updateTaken(db: Queries, remark: string, taken: boolean): Promise<boolean> {
  const rows = await db.query(
    `update remarks set taken_at = case when $2 then coalesce(taken_at, now()) end
     where id = $1 and suggestion is not null returning 1 as one`,
    [remark, taken],
  );
  return rows.length > 0;
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

export async function upsertListening(db: Queries, remark: string, person: string, finished: boolean): Promise<void> {
  await db.query(
    `insert into listenings (remark, person, finished_at) values ($1, $2, case when $3 then now() end)
     on conflict (remark, person) do update set finished_at = coalesce(listenings.finished_at, excluded.finished_at)`,
    [remark, person, finished],
  );
}

const FileRow = z.object({ file: z.instanceof(Buffer).nullable() });

/** The SHA-256 of one of the media that belong to a remark or a reply. */
async function selectMedium(db: Queries, query: string, id: string): Promise<Buffer | undefined> {
  return (await selectOne(db, FileRow, query, [id]))?.file ?? undefined;
}

export const selectSound = (db: Queries, table: 'remarks' | 'replies', id: string): Promise<Buffer | undefined> =>
  selectMedium(db, `select sound as file from ${table} where id = $1`, id);

/** The recording as it was spoken. */
export const selectOriginal = (db: Queries, id: string): Promise<Buffer | undefined> =>
  selectMedium(db, 'select coalesce(original, sound) as file from remarks where id = $1', id);

export const selectStampPicture = (db: Queries, id: string): Promise<Buffer | undefined> =>
  selectMedium(db, 'select stamp_picture as file from remarks where id = $1', id);

export const selectAttached = (
  db: Queries,
  id: string,
): Promise<{ file: Buffer | null; file_name: string | null } | undefined> =>
  selectOne(
    db,
    FileRow.extend({ file_name: z.string().nullable() }),
    'select file, file_name from remarks where id = $1',
    [id],
  );

/** An edited recording is kept as it was spoken until 30 days after the return; then only what the student hears is left. */
export async function purgeOriginals(db: Queries): Promise<void> {
  await db.query(
    `update remarks r set original = null, edit = null from submissions s
     where s.id = r.submission and s.returned_at < now() - interval '30 days' and r.original is not null`,
  );
}

/** What was put aside can be brought back for 30 days; then it goes. */
export async function purgeRemarks(db: Queries): Promise<void> {
  await db.query("delete from remarks where put_aside_at < now() - interval '30 days'");
}
