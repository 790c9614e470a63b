import { createHash } from 'node:crypto';
import { anchorHolds, type Anchor } from '#core/anchor';
import type { NewRemark, Remark } from '../../contract/remarks.ts';
import { NO_WORDS, type SaidWords } from '../../contract/said.ts';
import { holdForChange } from '../access/work-state.ts';
import { asTeacher } from '../access/visible.ts';
import type { Context } from '../context.ts';
import { selectMarginKey } from '../margin-key/queries.ts';
import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { selectSpokenLanguage } from '../languages/queries.ts';
import { keepUploaded } from '../media/media.ts';
import { incoming, keepRecording, wake } from '../recordings/make.ts';
import { selectWhatHolds } from '../submissions/queries.ts';
import type { UploadedFile } from '../uploads/uploaded.ts';
import { hasCriterion, insertRemark, isSameRemark, mayStamp, selectRemark } from './queries.ts';

export interface RemarkRequest {
  id: string;
  submission: string;
  author: string;
  remark: NewRemark;
  /** The recording, where there is one, then the attached file. */
  files: readonly UploadedFile[];
}

/** What was attached is handed out to be saved, never to be shown by the browser as what it claims to be. */
const FILE_TYPE = 'application/octet-stream';

/** Keeps a remark, its recording and its file together, once however often it is sent. */
export async function makeRemark(context: Context, request: RemarkRequest): Promise<Remark> {
  const { db, settings } = context;
  const { id, submission, author, remark } = request;
  const { anchor, kind, said } = remark;
  const { recording, file: attached, ...words } = said;
  const [spoken, file] = filesOf(request);
  if (file && file.byteLength > settings.maxFileBytes) throw problems.fileTooLarge(settings.maxFileBytes);
  if (file?.byteLength === 0) throw problems.fileEmpty();
  const heard = recording && (await incoming(recording, spoken));
  await refuseIfAstray(db, submission, author, { anchor, kind, words });
  if (isEmpty(words) && !heard && !file) throw problems.remarkEmpty();
  const language = await selectSpokenLanguage(db, author, submission);

  await db.transaction(async (tx) => {
    await holdForChange(tx, 'submission', submission);
    const row = {
      ...{ id, submission, author, kind, anchor, words },
      recording: heard && (await keepRecording(tx, heard, { owner: author, language })),
      madeFrom: hashOf(request),
      file: attached && file ? { sha256: await keepUploaded(tx, file, FILE_TYPE), name: attached.name } : null,
    };
    if (!(await insertRemark(tx, row)) && !(await isSameRemark(tx, row))) throw problems.idTaken();
  });
  wake(context);
  return (await selectRemark(db, id, asTeacher))!;
}

/** Of all that was asked for; what was read through a schema has its properties in one order. */
function hashOf({ remark, files }: RemarkRequest): Buffer {
  const hash = createHash('sha256').update(JSON.stringify(remark));
  for (const { sha256 } of files) hash.update(sha256);
  return hash.digest();
}

function filesOf({ remark: { said }, files }: RemarkRequest): [UploadedFile | undefined, UploadedFile | undefined] {
  const wanted = (said.recording ? 1 : 0) + (said.file ? 1 : 0);
  if (files.length !== wanted) throw problems.fileMissing();
  return said.recording ? [files[0], files[1]] : [undefined, files[0]];
}

/** The kind that a question has in a margin key, or the first of a key that has none. */
const QUESTION = 'question';

/** Opens a thread about a criterion, once: a remark that says nothing by itself. Call in a transaction. */
export async function openThread(
  tx: Queries,
  { id, submission, author, criterion }: { id: string; submission: string; author: string; criterion: string },
): Promise<void> {
  if (!(await hasCriterion(tx, submission, criterion))) throw problems.unknownLevel();
  const key = await selectMarginKey(tx, submission);
  const { kind } = key.find((entry) => entry.kind === QUESTION) ?? key[0]!;
  const row = { ...{ id, submission, author, kind }, words: { ...NO_WORDS, criterion } };
  const opening = { ...row, anchor: { type: 'whole' as const }, recording: null, file: null };
  if (!(await insertRemark(tx, opening)) && !(await isSameRemark(tx, opening))) throw problems.idTaken();
}

export const isEmpty = ({ text, link, reaction, suggestion, stamp, ink }: SaidWords): boolean =>
  text === '' && link === null && reaction === null && suggestion === null && stamp === null && ink === null;

interface Checked {
  anchor: Anchor;
  kind: string;
  words: SaidWords;
}

/** Refuses what does not belong to this work, its assignment, its course, or its author. */
export async function refuseIfAstray(
  db: Queries,
  submission: string,
  author: string,
  { anchor, kind, words }: Checked,
): Promise<void> {
  const folio = await selectWhatHolds(db, submission, anchor);
  if (!folio) throw problems.notFound();
  if (!anchorHolds(folio, anchor)) throw problems.anchorLost();
  if (words.suggestion !== null && anchor.type !== 'passage') throw problems.suggestionAstray();
  const key = await selectMarginKey(db, submission);
  if (!key.some((entry) => entry.kind === kind)) throw problems.unknownKind();
  if (words.criterion !== null && !(await hasCriterion(db, submission, words.criterion))) throw problems.unknownLevel();
  const { stamp } = words;
  if (stamp && 'picture' in stamp && !(await mayStamp(db, author, stamp.picture))) throw problems.unknownStamp();
}
