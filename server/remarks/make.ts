import { anchorHolds, type Anchor } from '#core/anchor';
import type { NewRemark, Remark, RemarkContent } from '../../contract/remarks.ts';
import type { NewSound } from '../../contract/sound.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import type { UploadedFile } from '../http/serve.ts';
import { keepMedium } from '../media/media.ts';
import { soundType } from '../media/sound-type.ts';
import { selectMarginKey } from '../courses/queries.ts';
import { queueJob } from '../speech/jobs.ts';
import { practiceTranscript } from '../speech/practice-transcript.ts';
import { selectSpokenLanguage } from '../speech/spoken-language.ts';
import { selectFolio } from '../submissions/queries.ts';
import { hasCriterion, insertRemark, isSameRemark, mayStamp, selectRemark, type RemarkSound } from './queries.ts';
import { putTranscript, selectTranscript } from './transcripts.ts';

export interface RemarkRequest {
  id: string;
  submission: string;
  author: string;
  remark: NewRemark;
  /** The recording, where there is one, then the attached file. */
  files: readonly UploadedFile[];
}

/** Keeps a remark, its sound and its file together, once however often it is sent, and asks for its words with it. */
export async function makeRemark(context: Context, request: RemarkRequest): Promise<Remark> {
  const { db, settings } = context;
  const { id, submission, author, remark } = request;
  const { anchor, kind, content, sound, edit, file: attached } = remark;
  const [spoken, file] = filesOf(request);
  if (file && file.bytes.length > settings.maxFileBytes) throw problems.fileTooLarge(settings.maxFileBytes);
  const mediaType = spoken && (await recordingType(spoken.bytes, sound));
  await refuseIfAstray(db, submission, author, { anchor, kind, content });
  if (isEmpty(content) && !spoken && !file) throw problems.remarkEmpty();

  await db.transaction(async (tx) => {
    await refuseIfReturned(tx, submission);
    const row = {
      id,
      submission,
      author,
      kind,
      anchor,
      content,
      edit,
      sound: sound && spoken ? await soundRow(tx, sound, spoken.bytes, mediaType!) : null,
      file: attached && file ? { sha256: await keepMedium(tx, file.bytes, FILE_TYPE), name: attached.name } : null,
    };
    if (await insertRemark(tx, row)) await askForWords(tx, request);
    else if (!(await isSameRemark(tx, row))) throw problems.idTaken();
  });
  context.speech.queue.wake('transcribe');
  context.speech.queue.wake('align');
  return (await selectRemark(db, id))!;
}

/** What was attached is handed out to be saved, never to be shown by the browser as what it claims to be. */
const FILE_TYPE = 'application/octet-stream';

function filesOf({ remark, files }: RemarkRequest): [UploadedFile | undefined, UploadedFile | undefined] {
  const wanted = (remark.sound ? 1 : 0) + (remark.file ? 1 : 0);
  if (files.length !== wanted) throw problems.fileMissing();
  return remark.sound ? [files[0], files[1]] : [undefined, files[0]];
}

export async function recordingType(bytes: Buffer, sound: NewSound | null): Promise<string> {
  const type = await soundType(bytes);
  return sound?.picture ? type.replace('audio/', 'video/') : type;
}

export const soundRow = async (
  tx: Queries,
  { duration, peaks, picture }: NewSound,
  bytes: Buffer,
  mediaType: string,
): Promise<RemarkSound> => ({ sha256: await keepMedium(tx, bytes, mediaType), duration, peaks, picture });

export const isEmpty = ({ text, link, reaction, suggestion, stamp }: RemarkContent): boolean =>
  text === '' && link === null && reaction === null && suggestion === null && stamp === null;

interface Checked {
  anchor: Anchor;
  kind: string;
  content: RemarkContent;
}

/** Refuses what does not belong to this work, its assignment, its course, or its author. */
export async function refuseIfAstray(
  db: Queries,
  submission: string,
  author: string,
  { anchor, kind, content }: Checked,
): Promise<void> {
  const folio = await selectFolio(db, submission);
  if (!folio) throw problems.notFound();
  if (!anchorHolds(folio, anchor)) throw problems.anchorLost();
  if (content.suggestion !== null && anchor.type !== 'passage') throw problems.suggestionAstray();
  const key = await selectMarginKey(db, submission);
  if (!key.some((entry) => entry.kind === kind)) throw problems.unknownKind();
  if (content.criterion !== null && !(await hasCriterion(db, submission, content.criterion)))
    throw problems.unknownLevel();
  const { stamp } = content;
  if (stamp && 'picture' in stamp && !(await mayStamp(db, author, stamp.picture))) throw problems.unknownStamp();
}

/** A machine listens later; only what the practice microphone said is known at once. */
async function askForWords(tx: Queries, { id, author, submission, remark }: RemarkRequest): Promise<void> {
  const { sound, draft } = remark;
  if (!sound || (await selectTranscript(tx, id))) return;
  const known = practiceTranscript(sound);
  if (known) return putTranscript(tx, id, known, null);
  const language = draft?.language ?? (await selectSpokenLanguage(tx, author, submission));
  if (!draft || draft.text.trim() === '') return queueJob(tx, id, 'transcribe', language);
  await putTranscript(
    tx,
    id,
    {
      ...{ language, text: draft.text.trim(), words: [], source: 'machine' },
      engine: draft.engine,
      approximate: true,
      read: false,
    },
    null,
  );
  await queueJob(tx, id, 'align', language);
}

/** Permission was checked before; this also holds against a return in the same moment. */
export async function refuseIfReturned(tx: Queries, submission: string): Promise<void> {
  const rows = await tx.query('select 1 as one from submissions where id = $1 and returned_at is null for update', [
    submission,
  ]);
  if (rows.length === 0) throw problems.returned();
}
