import { takeOfBlob } from './kept-sound.ts';
import type { UnfinishedTake } from './takes.ts';
import type { Take } from './use-recorder.ts';

/** Measures a take that a page before this one left behind; undefined where there is no sound in it. */
export async function recoveredTake(unfinished: UnfinishedTake): Promise<Take | undefined> {
  const { id, purpose, blob, microphone, picture, seconds } = unfinished;
  const take = await takeOfBlob(blob, microphone, seconds, { picture });
  return take && { id, purpose, ...take, original: take.edit ? Promise.resolve(blob) : undefined, thrown: false };
}
