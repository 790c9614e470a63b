import { randomUUID } from 'node:crypto';
import type { BankReport, Line } from '../../contract/bank-file.ts';
import {
  insertBanked,
  dropBroughtIn,
  selectBanked,
  selectOwnWords,
  selectTaken,
  showBroughtIn,
  updateBanked,
} from '../bank/queries.ts';
import type { Database, Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { keepMedium } from '../media/media.ts';
import { soundType } from '../media/sound-type.ts';
import { insertRecording } from '../recordings/queries.ts';
import { queueJob } from '../speech/jobs.ts';
import { heavyWork } from '../threads/heavy-work.ts';
import { OverLimit, runTask, TaskRefused } from '../threads/one-task.ts';
import { putTranscript, putTranslation } from '../transcripts/queries.ts';
import { bytesOf, type UploadedFile } from '../uploads/uploaded.ts';
import { comparable, planOf, type Planned } from './plan.ts';
import type { FileRemark, ReadBank } from './read.ts';
import type { ReadBankTask } from './read-worker.ts';

/** So many are kept in one transaction: others get their turn between them. */
const AT_ONCE = 25;
/** Of each fate so many lines are told. */
const MOST_TOLD = 200;
const LIMITS = { memory: 1024, cpu: 30 };
const TOO_LARGE = 'This file is too large to import at once. Split it and import the parts.';

/**
 * Looks at a file and says what would come of each of its lines; on wish it is done, all or nothing.
 * @throws ProblemError where the file as a whole cannot be taken
 */
export async function importBank(
  db: Database,
  person: string,
  file: UploadedFile,
  bringIn: boolean,
): Promise<BankReport> {
  const { lines, sounds } = await heavyWork.take(person, async () => readApart(await bytesOf(db, file)));
  const own = await selectOwnWords(db, person);
  const known = own.map(({ text, ...one }) => ({ ...one, words: comparable(text) }));
  const ids = lines.flatMap((line) => ('remark' in line ? [line.remark.id] : []));
  const plan = planOf(lines, known, await selectTaken(db, person, ids), randomUUID);
  await refuseSoundless(plan, sounds);
  if (bringIn) await carryOut(db, person, plan, sounds);
  return reportOf(plan, bringIn);
}

async function readApart(bytes: Uint8Array): Promise<ReadBank> {
  try {
    return await runTask<ReadBank>('bankFile', { bytes } satisfies ReadBankTask, LIMITS);
  } catch (error) {
    if (error instanceof TaskRefused) throw problems.bankFile(error.message);
    throw error instanceof OverLimit ? problems.bankFile(TOO_LARGE) : error;
  }
}

const soundOf = ({ sound }: FileRemark, sounds: ReadonlyMap<string, Uint8Array>): Buffer | undefined =>
  sound ? Buffer.from(sounds.get(sound.file)!) : undefined;

/** What calls itself a sound and is none. */
async function refuseSoundless(plan: Planned[], sounds: ReadonlyMap<string, Uint8Array>): Promise<void> {
  for (const [index, one] of plan.entries()) {
    const bytes = one.fate === 'add' && soundOf(one.remark, sounds);
    if (!bytes) continue;
    const known = await soundType(bytes.subarray(0, 8192)).catch(() => undefined);
    if (!known) plan[index] = { line: one.line, name: one.name, fate: 'refuse', why: 'its sound is no recording' };
  }
}

/** Piece by piece, and shown in the end: somebody who looks meanwhile sees nothing of it, or all. */
async function carryOut(
  db: Database,
  person: string,
  plan: readonly Planned[],
  sounds: ReadonlyMap<string, Uint8Array>,
): Promise<void> {
  const added = plan.flatMap((one) => (one.fate === 'add' ? [one.remark] : []));
  const ids = added.map(({ id }) => id);
  try {
    for (let at = 0; at < added.length; at += AT_ONCE) {
      const piece = added.slice(at, at + AT_ONCE);
      const media = new Map<string, Buffer>();
      for (const remark of piece) {
        const bytes = soundOf(remark, sounds);
        if (bytes) media.set(remark.id, await keepMedium(db, bytes, await soundType(bytes.subarray(0, 8192))));
      }
      await db.transaction(async (tx) => {
        for (const remark of piece) await keep(tx, person, remark, media.get(remark.id));
      });
    }
    await db.transaction(async (tx) => {
      await showBroughtIn(tx, ids);
      for (const one of plan) if (one.fate === 'merge') await addTags(tx, person, one.into, one.tags);
    });
  } catch (error) {
    await dropBroughtIn(db, ids);
    throw error;
  }
}

async function keep(tx: Queries, owner: string, remark: FileRemark, medium: Buffer | undefined): Promise<void> {
  const { id, sound, transcript, translations, language, content, madeAt } = remark;
  const recording = sound && medium ? id : null;
  if (recording) {
    const own = { sha256: medium!, duration: sound!.seconds, peaks: sound!.peaks, picture: null };
    await insertRecording(tx, { id, owner, sound: own, edit: null, language });
    if (transcript) await putTranscript(tx, id, transcript, null);
    if (!transcript) await queueJob(tx, id, 'transcribe', language);
    else if (transcript.words.length === 0) await queueJob(tx, id, 'align', transcript.language);
    for (const one of translations) await putTranslation(tx, id, { ...one, engine: '' });
  }
  await insertBanked(tx, { id, owner, content, recording, language, madeAt, hidden: true });
}

async function addTags(tx: Queries, person: string, banked: string, tags: string[]): Promise<void> {
  const [before] = await selectBanked(tx, person, [banked]);
  if (before) await updateBanked(tx, person, before, { tags });
}

function reportOf(plan: readonly Planned[], done: boolean): BankReport {
  const counts = { add: 0, merge: 0, known: 0, refuse: 0 };
  const lines: Line[] = [];
  for (const { line, name, fate, why } of plan) if (counts[fate]++ < MOST_TOLD) lines.push({ line, name, fate, why });
  return { ...counts, lines, done };
}
