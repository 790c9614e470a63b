import { selectOne, type Queries } from '../db/database.ts';
import { queueJob } from '../speech/jobs.ts';
import { z } from 'zod';
import { LanguageTag } from '#contract/basics';

/**
 * Copies a recording as it is heard, with its words in all languages. What is still being listened to is listened to for the copy
 * as well. Call in a transaction; `wake` after it.
 * @returns false where one of this id is there already
 */
export async function copyRecording(
  tx: Queries,
  from: string,
  { id, owner }: { id: string; owner: string },
): Promise<boolean> {
  const rows = await tx.query(
    `insert into recordings (id, owner, medium, duration, peaks, picture, language)
     select $2, $3, medium, duration, peaks, picture, language from recordings where id = $1
     on conflict (id) do nothing returning 1 as one`,
    [from, id, owner],
  );
  if (rows.length === 0) return false;
  await copyWords(tx, from, id);
  return true;
}

async function copyWords(tx: Queries, from: string, to: string): Promise<void> {
  await tx.query(
    `insert into transcripts (recording, language, text, words, source, engine, approximate, read)
     select $2, language, text, words, source, engine, approximate, read from transcripts where recording = $1`,
    [from, to],
  );
  await tx.query(
    `insert into translations (recording, language, text, source, engine)
     select $2, language, text, source, engine from translations where recording = $1`,
    [from, to],
  );
  const job = await selectOne(
    tx,
    z.object({ task: z.enum(['transcribe', 'align']), language: LanguageTag }),
    "select task, language from speech_jobs where recording = $1 and state in ('queued', 'running')",
    [from],
  );
  if (job) await queueJob(tx, to, job.task, job.language);
}
