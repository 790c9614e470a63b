import { retimedTrack } from '#core/talk';
import { retimed, textOfWords } from '#core/transcript';
import type { NewSound, SoundEdit } from '../../contract/sound.ts';
import type { Transcript } from '../../contract/transcripts.ts';
import type { Queries } from '../db/database.ts';
import { putTranscript } from '../transcripts/queries.ts';
import type { UploadedFile } from '../uploads/uploaded.ts';
import { found, keptSound, recordingType } from './make.ts';
import { selectRecording, selectTrack, updateSound, updateTrack } from './queries.ts';

interface Rendition {
  sound: NewSound;
  edit: SoundEdit;
  /** Its words, where they are known. */
  transcript: Transcript | null;
  file: UploadedFile;
}

/** Puts another rendition in the place of the sound; its words, and what was done meanwhile, keep to it. Call in a transaction. */
export async function changeRendition(
  tx: Queries,
  id: string,
  { sound, edit, transcript: known, file }: Rendition,
): Promise<void> {
  const mediaType = await recordingType(file, sound);
  const before = found(await selectRecording(tx, id));
  await updateSound(tx, id, await keptSound(tx, sound, file, mediaType), edit);
  const track = await selectTrack(tx, id);
  if (track) await updateTrack(tx, id, retimedTrack(track, before.edit?.kept ?? null, edit.kept));
  if (known) return putTranscript(tx, id, known, null);
  const { transcript } = before;
  if (!transcript || transcript.words.length === 0) return;
  const words = retimed(transcript.words, before.edit?.kept ?? null, edit.kept);
  // Words that are not heard any more are not read any more either.
  const text = words.length < transcript.words.length ? textOfWords(words) : transcript.text;
  await putTranscript(tx, id, { ...transcript, words, text }, null);
}
