import { createHash } from 'node:crypto';
import type { BankedRemark, NewBanked } from '../../contract/bank.ts';
import { authorise } from '../access/authorise.ts';
import { asTeacher } from '../access/visible.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { selectOwnLanguage } from '../languages/queries.ts';
import { incoming, keepRecording, wake } from '../recordings/make.ts';
import { selectRemark } from '../remarks/queries.ts';
import type { UploadedFile } from '../uploads/uploaded.ts';
import { copyRecording } from '../recordings/copy.ts';
import { insertBanked, isSameBanked, selectBanked } from './queries.ts';

interface KeepRequest {
  id: string;
  owner: string;
  banked: NewBanked;
  file: UploadedFile | undefined;
}

/** Keeps a remark in the bank, once however often it is sent: a fresh one with its recording, or a copy of one on a work. */
export async function keepInBank(context: Context, request: KeepRequest): Promise<BankedRemark> {
  const { db } = context;
  const { id, owner, banked, file } = request;
  const { recording, from, language: written, ...content } = banked;
  const heard = recording && (await incoming(recording, file));
  const copied = from === null ? null : await recordingOf(db, owner, from);
  if (!heard && !copied && isEmpty(content)) throw problems.remarkEmpty();
  const language = written ?? (await selectOwnLanguage(db, owner)) ?? 'en';
  await db.transaction(async (tx) => {
    const row = { id, owner, content, language, recording: null, madeFrom: hashOf(request) };
    const kept = heard ? await keepRecording(tx, heard, { owner, language }) : copied && id;
    if (copied) await copyRecording(tx, copied, { id, owner });
    if (!(await insertBanked(tx, { ...row, recording: kept })) && !(await isSameBanked(tx, row)))
      throw problems.idTaken();
  });
  wake(context);
  return (await selectBanked(db, owner, [id]))[0]!;
}

/** The recording of a remark that the person may change or could have made. */
async function recordingOf(db: Queries, person: string, remark: string): Promise<string | null> {
  await authorise(db, person, 'remark.bank', { remark });
  return (await selectRemark(db, remark, asTeacher))?.recording?.id ?? null;
}

const isEmpty = ({ text, link, reaction, suggestion }: Omit<NewBanked, 'recording' | 'from' | 'language'>): boolean =>
  text === '' && link === null && reaction === null && suggestion === null;

function hashOf({ banked, file }: KeepRequest): Buffer {
  const hash = createHash('sha256').update(JSON.stringify(banked));
  if (file) hash.update(file.sha256);
  return hash.digest();
}
