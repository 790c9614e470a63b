import { z } from 'zod';
import { Note, type NewNote, type NotePlace } from '../../contract/notes.ts';
import { PlainContent } from '../../contract/said.ts';
import type { Reader } from '../access/visible.ts';
import { select, type Queries } from '../db/database.ts';
import { recordingJson } from '../recordings/queries.ts';

const OWN_LISTENING = `jsonb_build_object('heard', (select jsonb_build_object('begunAt', l.begun_at, 'finishedAt', l.finished_at, 'played', l.played)
  from listenings l where l.recording = g.id and l.person = $2))`;
const LISTENERS = `(select coalesce(jsonb_agg(jsonb_build_object('name', w.name, 'finishedAt', l.finished_at) order by w.name), '[]')
  from listenings l join people w on w.id = l.person where l.recording = g.id and l.person <> n.author)`;

const noteJson = (reader: Reader): string => `n.content || jsonb_build_object('id', n.id,
  'at', jsonb_strip_nulls(jsonb_build_object('place', n.place, 'assignment', n.assignment, 'question', n.question)),
  'author', jsonb_build_object('id', p.id, 'name', p.name), 'madeAt', n.made_at,
  'recording', ${recordingJson('g', reader, 2)}${reader.teacher ? '' : ` || ${OWN_LISTENING}`},
  'listeners', ${reader.teacher ? LISTENERS : "'[]'::jsonb"})`;

async function selectWhere(db: Queries, which: string, value: string, reader: Reader): Promise<Note[]> {
  const rows = await select(
    db,
    z.object({ note: Note }),
    `select ${noteJson(reader)} as note from notes n join people p on p.id = n.author
     left join recordings g on g.id = n.recording where ${which} and $2::uuid is not null order by n.made_at, n.id`,
    [value, reader.person],
  );
  return rows.map(({ note }) => note);
}

/** The notes of a course and its assignments, in the order in which they were made. */
export const selectNotes = (db: Queries, course: string, reader: Reader): Promise<Note[]> =>
  selectWhere(db, 'n.course = $1 and n.put_aside_at is null', course, reader);

export const selectNote = async (db: Queries, id: string, reader: Reader): Promise<Note | undefined> =>
  (await selectWhere(db, 'n.id = $1', id, reader))[0];

export interface NoteToInsert {
  id: string;
  course: string;
  author: string;
  at: NotePlace;
  content: z.infer<typeof PlainContent>;
  recording: string | null;
  /** SHA-256 of the request, where it may come again. */
  madeFrom?: Buffer | null;
}

/** @returns false where one of this id is there already */
export async function insertNote(tx: Queries, note: NoteToInsert): Promise<boolean> {
  const { id, course, author, at, content, recording, madeFrom = null } = note;
  const rows = await tx.query(
    `insert into notes (id, course, place, assignment, question, author, recording, content, made_from)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9) on conflict (id) do nothing returning 1 as one`,
    [
      ...[id, course, at.place, 'assignment' in at ? at.assignment : null, 'question' in at ? at.question : null],
      ...[author, recording, JSON.stringify(PlainContent.parse(content)), madeFrom],
    ],
  );
  return rows.length > 0;
}

export async function isSameNote(tx: Queries, { id, author, madeFrom = null }: NoteToInsert): Promise<boolean> {
  const rows = await tx.query('select 1 as one from notes where id = $1 and author = $2 and made_from = $3', [
    id,
    author,
    madeFrom,
  ]);
  return rows.length > 0;
}

/** Whether a place belongs to a course. */
export async function isPlaceOf(db: Queries, course: string, at: NewNote['at']): Promise<boolean> {
  if (at.place === 'course') return true;
  const rows = await db.query(
    `select 1 as one from assignments a where a.id = $1 and a.course = $2
     and ($3::uuid is null or exists (select from questions q where q.id = $3 and q.assignment = a.id))`,
    [at.assignment, course, 'question' in at ? at.question : null],
  );
  return rows.length > 0;
}

export async function updateNoteAside(db: Queries, id: string, aside: boolean): Promise<void> {
  await db.query('update notes set put_aside_at = case when $2 then coalesce(put_aside_at, now()) end where id = $1', [
    id,
    aside,
  ]);
}

/** What was put aside can be brought back for 30 days; then it goes. */
export async function purgeNotes(db: Queries): Promise<void> {
  await db.query("delete from notes where put_aside_at < now() - interval '30 days'");
}
