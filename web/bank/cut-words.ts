import { keptSeconds, type SoundEdit } from '#core/audio';
import { struckSpans, withoutSpans } from '#core/transcript';
import type { Recording } from '#contract/recordings';
import type { KeptSound } from '../outbox/kept.ts';
import { soundBlob } from '../player/media-url.ts';
import { decode, renderSound } from '../recorder/sound-work.ts';

/**
 * A recording without some of its words.
 * @param struck positions of the words
 * @returns undefined where nothing would be left
 */
export async function cutWords(
  recording: Recording,
  struck: readonly number[],
): Promise<{ sound: KeptSound; edit: SoundEdit } | undefined> {
  const heard = await decode(await (await soundBlob(recording)).arrayBuffer());
  const spans = struckSpans(recording.transcript?.words ?? [], new Set(struck), heard);
  const kept = withoutSpans([{ start: 0, end: recording.sound.duration }], spans);
  if (keptSeconds(kept) === 0) return undefined;
  // What is heard is the original of the copy.
  const wanted = { kept, levelled: false };
  const { blob, sha256, duration, peaks, edit } = await renderSound(heard.samples, heard.rate, wanted);
  return { sound: { blob, sha256, duration, peaks, microphone: { type: 'device' }, picture: null }, edit };
}
