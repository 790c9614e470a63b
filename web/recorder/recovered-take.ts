import { takeOfBlob } from './kept-sound.ts';
import type { UnfinishedTake } from './takes.ts';
import type { Take } from './use-recorder.ts';

/** Measures a take that a page before this one left behind; undefined where there is no sound in it. */
export async function recoveredTake(unfinished: UnfinishedTake): Promise<Take | undefined> {
  const { id, purpose, blob, microphone, picture, seconds, notes } = unfinished;
  const take = await takeOfBlob(blob, microphone, seconds, { picture, whole: purpose.whole });
  if (!take) return undefined;
  return { ...{ id, purpose, ...take, notes, thrown: false }, original: take.edit ? Promise.resolve(blob) : undefined };
}
