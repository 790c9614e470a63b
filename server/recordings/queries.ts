import { z } from 'zod';
import { Id, LanguageTag } from '../../contract/basics.ts';
import { Recording } from '../../contract/recordings.ts';
import { isHeard, joinedPlayed, type Span } from '#core/audio';
import { Stretch, type Sound, type SoundEdit } from '../../contract/sound.ts';
import { Track } from '../../contract/talk.ts';
import { asTeacher, type Reader } from '../access/visible.ts';
import { selectOne, type Queries } from '../db/database.ts';
import { heldByNone } from '../media/media.ts';
import { TRANSCRIPT_JSON, TRANSLATIONS_JSON } from '../transcripts/queries.ts';

/**
 * A recording `g` as the contract has it, null where there is none. What was cut is for teachers; how far listening is, for them
 * and whoever spoke.
 * @param person the number of the parameter that is the reader
 */
export const recordingJson = (g: string, reader: Reader, person: number): string => {
  const speech = `(select jsonb_build_object('task', j.task, 'state', j.state, 'reason', j.reason, 'progress', j.progress)
    from speech_jobs j where j.recording = ${g}.id)`;
  return `case when ${g}.id is not null then jsonb_build_object('id', ${g}.id,
    'sound', jsonb_build_object('sha256', encode(${g}.medium, 'hex'), 'duration', ${g}.duration, 'peaks', ${g}.peaks,
      'picture', ${g}.picture),
    'edit', ${reader.teacher ? `${g}.edit` : 'null::jsonb'}, 'language', ${g}.language,
    'transcript', (select ${TRANSCRIPT_JSON} from transcripts t where t.recording = ${g}.id),
    'translations', ${TRANSLATIONS_JSON(`${g}.id`)},
    'speech', ${reader.teacher ? speech : `case when ${g}.owner = $${person}::uuid then ${speech} end`},
    'heard', (select jsonb_build_object('begunAt', min(l.begun_at), 'finishedAt', min(l.finished_at),
        'played', (array_agg(l.played order by l.finished_at, l.begun_at))[1])
      from listenings l where l.recording = ${g}.id and l.person <> ${g}.owner having count(*) > 0),
    'madeAt', ${g}.made_at) end`;
};

export async function selectRecording(
  db: Queries,
  recording: string,
  reader: Reader = asTeacher,
): Promise<Recording | undefined> {
  const row = await selectOne(
    db,
    z.object({ recording: Recording }),
    `select ${recordingJson('g', reader, 2)} as recording from recordings g where g.id = $1 and $2::uuid is not null`,
    [recording, reader.person],
  );
  return row?.recording;
}

const KeptRow = z.object({
  owner: Id,
  language: LanguageTag,
  medium: z.instanceof(Buffer),
  original: z.instanceof(Buffer),
});

/** Whose it is, and its media: as it is heard, and as it was spoken. */
export const selectKept = (db: Queries, recording: string): Promise<z.infer<typeof KeptRow> | undefined> =>
  selectOne(
    db,
    KeptRow,
    'select owner, language, medium, coalesce(original, medium) as original from recordings where id = $1',
    [recording],
  );

export interface RecordingToInsert {
  id: string;
  owner: string;
  sound: RecordedSound;
  edit: SoundEdit | null;
  language: string;
  /** ISO 8601; now where it is not given. */
  madeAt?: string;
}

export interface RecordedSound extends Omit<Sound, 'sha256'> {
  sha256: Buffer;
}

/** @returns false where a recording of this id is there already */
export async function insertRecording(tx: Queries, recording: RecordingToInsert): Promise<boolean> {
  const { id, owner, sound, edit, language, madeAt = null } = recording;
  const rows = await tx.query(
    `insert into recordings (id, owner, medium, duration, peaks, picture, edit, language, made_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, coalesce($9::timestamptz, now()))
     on conflict (id) do nothing returning 1 as one`,
    [
      ...[id, owner, sound.sha256, sound.duration, JSON.stringify(sound.peaks), sound.picture],
      ...[edit && JSON.stringify(edit), language, madeAt],
    ],
  );
  return rows.length > 0;
}

/** Whether the recording that is there already is the same, as it was sent first, by the same person. It may have been cut since. */
export async function isSameRecording(tx: Queries, { id, owner, sound }: RecordingToInsert): Promise<boolean> {
  const rows = await tx.query(
    `select 1 as one from recordings where id = $1 and owner = $2 and (medium = $3 or original = $3 or edit is not null)`,
    [id, owner, sound.sha256],
  );
  return rows.length > 0;
}

/** The first rendition makes what was there the original. */
export async function updateSound(db: Queries, id: string, sound: RecordedSound, edit: SoundEdit): Promise<void> {
  await db.query(
    `update recordings set original = coalesce(original, medium), medium = $2, duration = $3, peaks = $4, edit = $5
     where id = $1`,
    [id, sound.sha256, sound.duration, JSON.stringify(sound.peaks), JSON.stringify(edit)],
  );
}

/** The recording as it was spoken; one that is there already stays. */
export async function updateOriginal(db: Queries, id: string, original: Buffer): Promise<void> {
  await db.query('update recordings set original = coalesce(original, $2) where id = $1', [id, original]);
}

export async function updateLanguage(db: Queries, id: string, language: string): Promise<void> {
  await db.query('update recordings set language = $2 where id = $1', [id, language]);
}

/** What somebody has played of a recording is more by now. Call in a transaction. */
export async function upsertListening(
  tx: Queries,
  recording: string,
  person: string,
  played: readonly Span[],
): Promise<void> {
  await tx.query('insert into listenings (recording, person) values ($1, $2) on conflict do nothing', [
    recording,
    person,
  ]);
  const row = await selectOne(
    tx,
    z.object({ played: z.array(Stretch), duration: z.number() }),
    `select l.played, g.duration from listenings l join recordings g on g.id = l.recording
     where l.recording = $1 and l.person = $2 for update of l`,
    [recording, person],
  );
  const all = joinedPlayed([...row!.played, ...played], row!.duration);
  await tx.query(
    `update listenings set played = $3::jsonb, finished_at = coalesce(finished_at, case when $4 then now() end)
     where recording = $1 and person = $2`,
    [recording, person, JSON.stringify(all), isHeard(all, row!.duration)],
  );
}

/** How far one person's listening is. */
export async function selectListening(db: Queries, recording: string, person: string): Promise<Recording['heard']> {
  const row = await selectOne(
    db,
    z.object({ heard: Recording.shape.heard }),
    `select jsonb_build_object('begunAt', begun_at, 'finishedAt', finished_at, 'played', played) as heard from listenings
     where recording = $1 and person = $2`,
    [recording, person],
  );
  return row?.heard ?? null;
}

/** A recording goes with the last that holds it. What can hold one are these columns. */
export const HOLDERS = [
  'remarks.recording',
  'replies.recording',
  'banked_remarks.recording',
  'greetings.recording',
  'notes.recording',
];

export async function purgeRecordings(db: Queries): Promise<void> {
  await db.query(`delete from recordings g where ${heldByNone('g.id', HOLDERS)}`);
}

export const MEDIA = ['recordings.medium', 'recordings.original'];

/** What was done while it was spoken, where somebody talked a work through: it lies with the remark that holds the recording. */
export async function selectTrack(tx: Queries, recording: string): Promise<Track | undefined> {
  const row = await selectOne(
    tx,
    z.object({ talk: Track.nullable() }),
    "select content -> 'talk' as talk from remarks where recording = $1 for update",
    [recording],
  );
  return row?.talk ?? undefined;
}

export async function updateTrack(tx: Queries, recording: string, track: Track): Promise<void> {
  await tx.query("update remarks set content = jsonb_set(content, '{talk}', $2::jsonb) where recording = $1", [
    recording,
    JSON.stringify(track),
  ]);
}
