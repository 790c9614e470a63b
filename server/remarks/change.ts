import { retimed, textOfWords } from '#core/transcript';
import { RemarkContent, type RemarkChange, type Transcript } from '../../contract/remarks.ts';
import type { NewSound, SoundEdit } from '../../contract/sound.ts';
import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { isEmpty, recordingType, refuseIfAstray, refuseIfReturned, soundRow } from './make.ts';
import { selectRemark, selectRemarkPlace, updateContent, updateSound } from './queries.ts';
import { putTranscript } from './transcripts.ts';

/** Changes what is given and leaves the rest. Call in a transaction. */
export async function changeContent(tx: Queries, id: string, change: RemarkChange): Promise<void> {
  const { submission, author } = await placeOf(tx, id);
  await refuseIfReturned(tx, submission);
  const before = (await selectRemark(tx, id))!;
  const content = RemarkContent.parse({ ...before, ...change });
  const checked = { anchor: change.anchor ?? before.anchor, kind: change.kind ?? before.kind, content };
  // What it had already may stay, e.g. a kind that has left the margin key since.
  if (change.kind !== undefined || change.anchor || change.stamp || change.criterion || change.suggestion !== undefined)
    await refuseIfAstray(tx, submission, author, checked);
  if (!before.sound && !before.file && isEmpty(content)) throw problems.remarkEmpty();
  await updateContent(tx, id, checked);
}

interface Rendition {
  sound: NewSound;
  edit: SoundEdit;
  /** Its words, where they are known. */
  transcript: Transcript | null;
  bytes: Buffer;
}

/** Puts another rendition in the place of the sound; the words keep to it. Call in a transaction. */
export async function changeRendition(
  tx: Queries,
  id: string,
  { sound, edit, transcript: known, bytes }: Rendition,
): Promise<void> {
  const mediaType = await recordingType(bytes, sound);
  await refuseIfReturned(tx, (await placeOf(tx, id)).submission);
  const before = (await selectRemark(tx, id))!;
  if (!before.sound) throw problems.soundEmpty();
  await updateSound(tx, id, await soundRow(tx, sound, bytes, mediaType), edit);
  if (known) return putTranscript(tx, id, known, null);
  const { transcript } = before;
  if (!transcript || transcript.words.length === 0) return;
  const words = retimed(transcript.words, before.edit?.kept ?? null, edit.kept);
  // Words that are not heard any more are not read any more either.
  const text = words.length < transcript.words.length ? textOfWords(words) : transcript.text;
  await putTranscript(tx, id, { ...transcript, words, text }, null);
}

async function placeOf(tx: Queries, id: string): Promise<{ submission: string; author: string }> {
  const place = await selectRemarkPlace(tx, id);
  if (!place) throw problems.notFound();
  return place;
}
