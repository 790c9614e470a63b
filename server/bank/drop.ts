import { createHash } from 'node:crypto';
import type { BankedRemark, Drop } from '../../contract/bank.ts';
import type { Remark } from '../../contract/remarks.ts';
import { NO_WORDS, SaidContent, type SaidWords } from '../../contract/said.ts';
import { authorise } from '../access/authorise.ts';
import { asTeacher } from '../access/visible.ts';
import { holdForChange } from '../access/work-state.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { incoming, keptSound, wake, type Incoming } from '../recordings/make.ts';
import { insertRecording, isSameRecording } from '../recordings/queries.ts';
import { refuseIfAstray } from '../remarks/make.ts';
import { insertRemark, isSameRemark, selectRemark } from '../remarks/queries.ts';
import { queueJob } from '../speech/jobs.ts';
import { putTranscript } from '../transcripts/queries.ts';
import type { UploadedFile } from '../uploads/uploaded.ts';
import { copyRecording } from '../recordings/copy.ts';
import { selectBanked } from './queries.ts';
import { insertUse } from './uses.ts';

interface DropRequest {
  id: string;
  submission: string;
  person: string;
  drop: Drop;
  /** The sound with a greeting in it, where there is one. */
  file: UploadedFile | undefined;
}

/** Puts a copy of a banked remark on a work, once however often it is sent. */
export async function dropBanked(context: Context, request: DropRequest): Promise<Remark> {
  const { db } = context;
  const { id, submission, person, drop, file } = request;
  await authorise(db, person, 'bank.use', { banked: drop.banked });
  const banked = (await selectBanked(db, person, [drop.banked]))[0]!;
  const words = wordsOf(banked, drop.criterion);
  const { anchor, kind, greeted } = drop;
  const heard =
    greeted && (await incoming({ id: drop.recording, sound: greeted.sound, edit: null, draft: null }, file));
  // A suggestion needs a passage to stand for.
  if (words.suggestion !== null && anchor.type !== 'passage') throw problems.suggestionAstray();
  await refuseIfAstray(db, submission, person, { anchor, kind, words });
  await db.transaction(async (tx) => {
    await holdForChange(tx, 'submission', submission);
    const recording = banked.recording && (await copied(tx, request, banked, heard));
    const row = {
      id,
      submission,
      author: person,
      kind,
      anchor,
      words,
      recording,
      file: null,
      madeFrom: hashOf(request),
    };
    if (!(await insertRemark(tx, row)) && !(await isSameRemark(tx, row))) throw problems.idTaken();
    await insertUse(tx, { remark: id, banked: drop.banked, person, around: drop.around, greeted: heard !== null });
  });
  wake(context);
  return (await selectRemark(db, id, asTeacher))!;
}

const wordsOf = (banked: BankedRemark, criterion: string | null): SaidWords => ({
  ...NO_WORDS,
  ...SaidContent.parse({ ...banked, stamp: null, ink: null, talk: null }),
  criterion,
});

async function copied(
  tx: Queries,
  { person, drop }: DropRequest,
  { recording }: BankedRemark,
  heard: Incoming | null,
): Promise<string> {
  const id = drop.recording;
  if (heard) await keepGreeted(tx, { id, owner: person, heard, drop, language: recording!.language });
  else await copyRecording(tx, recording!.id, { id, owner: person });
  return id;
}

interface Greeted {
  id: string;
  owner: string;
  heard: Incoming;
  drop: Drop;
  language: string;
}

/** The browser has joined the sound, and says where the words are in it now. */
async function keepGreeted(tx: Queries, { id, owner, heard, drop, language }: Greeted): Promise<void> {
  const { sound, transcript } = drop.greeted!;
  const row = { id, owner, language, edit: null, sound: await keptSound(tx, sound, heard.file, heard.mediaType) };
  if (!(await insertRecording(tx, row))) {
    if (!(await isSameRecording(tx, row))) throw problems.idTaken();
    return;
  }
  if (!transcript) return queueJob(tx, id, 'transcribe', language);
  await putTranscript(tx, id, transcript, null);
  if (transcript.words.length === 0) await queueJob(tx, id, 'align', transcript.language);
}

function hashOf({ drop, file }: DropRequest): Buffer {
  const hash = createHash('sha256').update(JSON.stringify(drop));
  if (file) hash.update(file.sha256);
  return hash.digest();
}
