import { peaks } from '#core/audio';
import type { Microphone } from '#contract/sound';
import type { KeptSound } from '../shared/changes.ts';

const PEAKS = 200;
const SHORTEST_SECONDS = 0.1;

/**
 * Measures a recording: how long it is, how it looks, and what it is called.
 * @returns undefined where there is no sound in it
 */
export async function keptSound(
  context: BaseAudioContext,
  blob: Blob,
  microphone: Microphone,
): Promise<KeptSound | undefined> {
  if (blob.size === 0) return undefined;
  const bytes = await blob.arrayBuffer();
  const [sha256, decoded] = await Promise.all([
    hexDigest(bytes),
    context.decodeAudioData(bytes.slice(0)).catch(() => undefined),
  ]);
  if (!decoded || decoded.duration < SHORTEST_SECONDS) return undefined;
  return { blob, sha256, duration: decoded.duration, peaks: peaks(decoded.getChannelData(0), PEAKS), microphone };
}

async function hexDigest(bytes: ArrayBuffer): Promise<string> {
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
  return Array.from(digest, (byte) => byte.toString(16).padStart(2, '0')).join('');
}
