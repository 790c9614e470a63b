import { urlOf } from '#contract/endpoint';
import { recordingSound, type Recording } from '#contract/recordings';
import { remarkFile, remarkStamp, type Remark } from '#contract/remarks';
import type { Sound } from '#contract/sound';
import type { KeptSound } from '../outbox/kept.ts';
import { localBlob, localUrl, rememberBytes } from './local-media.ts';

type Heard = Pick<Recording, 'id' | 'sound'>;

/** A recording that can be heard but has no file yet, and so no SHA-256. */
export function freshSound(id: string, wav: Blob, about: Omit<Sound, 'sha256'>): Sound {
  const sha256 = freshName(id);
  rememberBytes({ sha256, blob: wav });
  return { ...about, sha256 };
}
export const freshName = (id: string): string => `fresh ${id}`;

export const recordingUrl = ({ id, sound: { sha256 } }: Heard): string =>
  localUrl(sha256) ?? urlOf(recordingSound, { recording: id, sha256 });

export const remarkFileUrl = ({ id, file }: Pick<Remark, 'id' | 'file'>): string =>
  file ? (localUrl(file.sha256) ?? urlOf(remarkFile, { remark: id, sha256: file.sha256 })) : '';

export const stampUrl = (remark: string, sha256: string): string =>
  localUrl(sha256) ?? urlOf(remarkStamp, { remark, sha256 });

/** The bytes of a recording as it is heard. */
export async function soundBlob({ id, sound: { sha256 } }: Heard): Promise<Blob> {
  const here = localBlob(sha256);
  if (here) return here;
  const answer = await fetch(urlOf(recordingSound, { recording: id, sha256 }));
  if (!answer.ok) throw new Error('The recording is not here');
  return answer.blob();
}

/** A recording so that it can be sent again. */
export const keptAgain = async (recording: Heard): Promise<KeptSound> => ({
  ...recording.sound,
  blob: await soundBlob(recording),
  microphone: { type: 'device' },
});
