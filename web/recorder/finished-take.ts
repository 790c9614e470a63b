import type { Microphone, Sound, SoundEdit } from '#contract/sound';
import type { KeptSound } from '../outbox/kept.ts';
import { renderedTake, takeOfBlob, type RenderedTake } from './kept-sound.ts';
import { canRender, type Telling } from './sound-work.ts';
import type { Tapped } from './tap.ts';

export interface FinishedTake {
  sound: KeptSound;
  /** What of the original is heard; null where the sound is the original. */
  edit: SoundEdit | null;
  /** The recording as it was spoken, where the sound is a rendition of it. */
  original: Promise<Blob> | undefined;
}

export interface Spoken {
  tapped: Tapped | undefined;
  /** Of the samples, per second. */
  rate: number;
  microphone: Microphone;
  picture: Sound['picture'];
  original: Promise<Blob>;
  /** Seconds by the clock. */
  length: number;
  /** Silence before and after what is said stays. */
  whole?: boolean | undefined;
}

/** What a take becomes. The samples are there at once; the encoder's file comes when the delay line has run empty. */
export async function finishedTake(spoken: Spoken, telling: Telling): Promise<FinishedTake | undefined> {
  const { tapped, rate, microphone, picture, original, length, whole } = spoken;
  const rendered: RenderedTake | undefined =
    tapped?.samples && !picture && canRender()
      ? await renderedTake(tapped.samples, rate, microphone, { whole, telling }).catch(() => undefined)
      : undefined;
  // What is too long to be worked on here is kept as the encoder made it.
  const tops = tapped && !tapped.samples ? tapped.tops : undefined;
  const take = rendered ?? (await takeOfBlob(await original, microphone, length, { picture, tops, whole }));
  return take && { ...take, original: take.edit ? original : undefined };
}
