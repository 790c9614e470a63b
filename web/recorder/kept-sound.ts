import { peaks } from '#core/audio';
import type { Microphone } from '#contract/sound';
import type { KeptSound } from '../shared/changes.ts';

const PEAKS = 200;
const SHORTEST_SECONDS = 0.1;
/** An encoder's file head without any sound is smaller than this. */
const LEAST_BYTES = 300;

/**
 * Measures a recording: how long it is, how it looks, and what it is called. One that this browser cannot decode is kept
 * all the same, without an outline.
 * @param clockSeconds how long it is by the clock
 * @returns undefined where there is no sound in it
 */
export async function keptSound(
  context: BaseAudioContext,
  blob: Blob,
  microphone: Microphone,
  clockSeconds: number,
): Promise<KeptSound | undefined> {
  if (blob.size < LEAST_BYTES) return undefined;
  const bytes = await blob.arrayBuffer();
  const sha256 = await hexDigest(bytes);
  const decoded = await context.decodeAudioData(bytes).catch(() => undefined);
  const duration = decoded?.duration ?? clockSeconds;
  if (duration < SHORTEST_SECONDS) return undefined;
  return { blob, sha256, duration, peaks: decoded ? peaks(decoded.getChannelData(0), PEAKS) : [0], microphone };
}

async function hexDigest(bytes: ArrayBuffer): Promise<string> {
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
  return Array.from(digest, (byte) => byte.toString(16).padStart(2, '0')).join('');
}
