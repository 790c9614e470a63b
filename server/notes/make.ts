import { createHash } from 'node:crypto';
import type { BankedRemark } from '../../contract/bank.ts';
import type { NewNote, Note } from '../../contract/notes.ts';
import { authorise } from '../access/authorise.ts';
import { copyRecording } from '../recordings/copy.ts';
import { selectBanked } from '../bank/queries.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { selectOwnLanguage } from '../languages/queries.ts';
import { incoming, keepRecording, wake } from '../recordings/make.ts';
import type { UploadedFile } from '../uploads/uploaded.ts';
import { insertNote, isPlaceOf, isSameNote, selectNote } from './queries.ts';

interface NoteRequest {
  id: string;
  course: string;
  author: string;
  note: NewNote;
  file: UploadedFile | undefined;
}

/** Keeps a note with its recording, once however often it is sent: a fresh one, or a copy out of the bank. */
export async function makeNote(context: Context, request: NoteRequest): Promise<Note> {
  const { db } = context;
  const { id, course, author, note, file } = request;
  const { at, recording, banked: wanted, ...own } = note;
  if (!(await isPlaceOf(db, course, at))) throw problems.notFound();
  const banked = wanted === null ? undefined : await bankedFor(context, author, wanted);
  const content = banked ?? own;
  const heard = recording && (await incoming(recording, file));
  const copied = banked?.recording?.id;
  if (!heard && !copied && content.text === '' && content.link === null) throw problems.remarkEmpty();
  const language = (await selectOwnLanguage(db, author)) ?? 'en';
  await db.transaction(async (tx) => {
    const kept = heard ? await keepRecording(tx, heard, { owner: author, language }) : copied ? id : null;
    if (copied) await copyRecording(tx, copied, { id, owner: author });
    const row = { id, course, author, at, content, recording: kept, madeFrom: hashOf(request) };
    if (!(await insertNote(tx, row)) && !(await isSameNote(tx, row))) throw problems.idTaken();
  });
  wake(context);
  return (await selectNote(db, id, { teacher: true, person: author }))!;
}

async function bankedFor({ db }: Context, person: string, banked: string): Promise<BankedRemark> {
  await authorise(db, person, 'bank.use', { banked });
  return (await selectBanked(db, person, [banked]))[0]!;
}

function hashOf({ note, file }: NoteRequest): Buffer {
  const hash = createHash('sha256').update(JSON.stringify(note));
  if (file) hash.update(file.sha256);
  return hash.digest();
}
