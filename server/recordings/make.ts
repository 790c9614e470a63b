import type { NewRecording, Recording } from '../../contract/recordings.ts';
import type { NewSound } from '../../contract/sound.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { keepUploaded } from '../media/media.ts';
import { soundType } from '../media/sound-type.ts';
import { queueJob } from '../speech/jobs.ts';
import { practiceTranscript } from '../speech/practice-transcript.ts';
import { putTranscript, selectTranscript } from '../transcripts/queries.ts';
import type { UploadedFile } from '../uploads/uploaded.ts';
import { insertRecording, isSameRecording, type RecordedSound } from './queries.ts';

/** A recording that came with a request, looked at before anything is written. */
export interface Incoming {
  recording: NewRecording;
  file: UploadedFile;
  mediaType: string;
}

/** @throws ProblemError where there is no sound, or none that can be played */
export async function incoming(recording: NewRecording, file: UploadedFile | undefined): Promise<Incoming> {
  if (!file) throw problems.fileMissing();
  return { recording, file, mediaType: await recordingType(file, recording.sound) };
}

export async function recordingType({ head }: UploadedFile, { picture }: NewSound): Promise<string> {
  const type = await soundType(head);
  return picture ? type.replace('audio/', 'video/') : type;
}

export async function keptSound(
  tx: Queries,
  { duration, peaks, picture }: NewSound,
  file: UploadedFile,
  mediaType: string,
): Promise<RecordedSound> {
  return { sha256: await keepUploaded(tx, file, mediaType), duration, peaks, picture };
}

/**
 * Keeps a recording, once however often it is sent, and asks for its words with it. Call in a transaction; `wake` after it.
 * @param language what its speaker probably speaks
 */
export async function keepRecording(
  tx: Queries,
  { recording, file, mediaType }: Incoming,
  { owner, language }: { owner: string; language: string },
): Promise<string> {
  const { id, sound, edit, draft } = recording;
  const row = {
    ...{ id, owner, edit, language: draft?.language ?? language },
    sound: await keptSound(tx, sound, file, mediaType),
  };
  if (await insertRecording(tx, row)) await askForWords(tx, recording, row.language);
  else if (!(await isSameRecording(tx, row))) throw problems.idTaken();
  return id;
}

/** A machine listens later; only what the practice microphone said is known at once. */
async function askForWords(tx: Queries, { id, sound, draft }: NewRecording, language: string): Promise<void> {
  if (await selectTranscript(tx, id)) return;
  const known = practiceTranscript(sound);
  if (known) return putTranscript(tx, id, known, null);
  if (!draft || draft.text.trim() === '') return queueJob(tx, id, 'transcribe', language);
  const heard = { language, text: draft.text.trim(), words: [], engine: draft.engine };
  await putTranscript(tx, id, { ...heard, source: 'machine', approximate: true, read: false }, null);
  await queueJob(tx, id, 'align', language);
}

/** Somebody may have been recorded. */
export function wake({ speech }: Context): void {
  speech.queue.wake('transcribe');
  speech.queue.wake('align');
}

/** The one recording that is asked for. */
export function found(recording: Recording | undefined): Recording {
  if (!recording) throw problems.notFound();
  return recording;
}
