import { peaks } from '#core/audio';
import type { Microphone } from '#contract/sound';
import type { SoundEdit } from '#contract/sound';
import type { KeptSound } from '../outbox/kept.ts';
import { hexDigest } from '../session/digest.ts';
import { canRender, decode, renderSound, type Telling } from './sound-work.ts';

const PEAKS = 200;
const SHORTEST_SECONDS = 0.1;
/** An encoder's file head without any sound is smaller than this. */
const LEAST_BYTES = 300;
/** Seconds; see `tap.ts`. */
const LONGEST_RENDERED = 720;

export interface RenderedTake {
  sound: KeptSound;
  /** What of the original is heard; null where the sound is the original. */
  edit: SoundEdit | null;
}

/** The practice sentence begins earlier in a recording whose beginning was taken away. */
const shifted = (microphone: Microphone, { kept }: SoundEdit): Microphone =>
  microphone.type === 'practice'
    ? { ...microphone, from: Math.max(0, microphone.from - (kept[0]?.start ?? 0)) }
    : microphone;

interface HowRendered {
  /** Silence before and after what is said stays. */
  whole?: boolean | undefined;
  telling?: Telling;
}

/** A fresh take out of its samples: trimmed, levelled and encoded; undefined where there is no sound in it. */
export async function renderedTake(
  samples: Float32Array<ArrayBuffer>,
  rate: number,
  microphone: Microphone,
  { whole, telling }: HowRendered = {},
): Promise<RenderedTake | undefined> {
  if (samples.length / rate < SHORTEST_SECONDS) return undefined;
  const all = whole ? { kept: [{ start: 0, end: samples.length / rate }], levelled: true } : undefined;
  const { blob, sha256, duration, peaks, edit } = await renderSound(samples, rate, all, telling);
  const sound = { blob, sha256, duration, peaks, microphone: shifted(microphone, edit), picture: null };
  return { sound, edit };
}

interface About {
  picture?: KeptSound['picture'];
  /** How it looks, where it is too long to be decoded. */
  tops?: Float32Array | undefined;
  /** Silence before and after what is said stays. */
  whole?: boolean | undefined;
}

/**
 * A recording as the encoder made it. One that this browser cannot decode is kept all the same, without an outline.
 * @param clockSeconds how long it is by the clock
 * @returns undefined where there is no sound in it
 */
export async function keptSound(
  blob: Blob,
  microphone: Microphone,
  clockSeconds: number,
  { picture = null, tops }: About = {},
): Promise<KeptSound | undefined> {
  if (blob.size < LEAST_BYTES) return undefined;
  const bytes = await blob.arrayBuffer();
  const sha256 = await hexDigest(bytes);
  if (tops) return { blob, sha256, duration: clockSeconds, peaks: peaks(tops, PEAKS), microphone, picture };
  const decoded = await decode(bytes).catch(() => undefined);
  const duration = decoded ? decoded.samples.length / decoded.rate : clockSeconds;
  if (duration < SHORTEST_SECONDS) return undefined;
  return { blob, sha256, duration, peaks: decoded ? peaks(decoded.samples, PEAKS) : [0], microphone, picture };
}

/** Makes of the encoder's file what a take becomes: rendered where the browser can, as it is elsewhere. */
export async function takeOfBlob(
  blob: Blob,
  microphone: Microphone,
  clockSeconds: number,
  about: About = {},
): Promise<RenderedTake | undefined> {
  if (blob.size < LEAST_BYTES) return undefined;
  if (canRender() && !about.picture && !about.tops && clockSeconds < LONGEST_RENDERED) {
    const { samples, rate } = await decode(await blob.arrayBuffer()).catch(() => ({ samples: undefined, rate: 0 }));
    const { whole } = about;
    const rendered = samples && (await renderedTake(samples, rate, microphone, { whole }).catch(() => undefined));
    if (rendered) return rendered;
  }
  const sound = await keptSound(blob, microphone, clockSeconds, about);
  return sound && { sound, edit: null };
}
