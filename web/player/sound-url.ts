import {
  remarkFilePath,
  remarkSoundPath,
  remarkStampPath,
  replySoundPath,
  type Remark,
  type Reply,
} from '#contract/remarks';
import type { Sound } from '#contract/sound';
import type { KeptSound } from '../feedback/changes.ts';

/** Bytes that were made in this page, by their SHA-256: they play from memory, before and after the server has them. */
const local = new Map<string, { url: string; blob: Blob }>();

export function rememberSound({ sha256, blob }: Pick<KeptSound, 'sha256' | 'blob'>): void {
  if (!local.has(sha256)) local.set(sha256, { url: URL.createObjectURL(blob), blob });
}

/** A recording that can be heard but has no file yet, and so no SHA-256. */
export function freshSound(id: string, wav: Blob, about: Omit<Sound, 'sha256'>): Sound {
  const sha256 = `fresh ${id}`;
  rememberSound({ sha256, blob: wav });
  return { ...about, sha256 };
}

export const remarkSoundUrl = ({ id, sound }: Pick<Remark, 'id' | 'sound'>): string =>
  sound ? (local.get(sound.sha256)?.url ?? remarkSoundPath(id, sound.sha256)) : '';

export const replySoundUrl = ({ id, sound }: Pick<Reply, 'id' | 'sound'>): string =>
  local.get(sound!.sha256)?.url ?? replySoundPath(id, sound!.sha256);

export const remarkFileUrl = ({ id, file }: Pick<Remark, 'id' | 'file'>): string =>
  file ? (local.get(file.sha256)?.url ?? remarkFilePath(id, file.sha256)) : '';

export const stampUrl = (id: string, sha256: string): string => local.get(sha256)?.url ?? remarkStampPath(id, sha256);

/** The bytes of a remark's recording as it is heard. */
export async function soundBlob({ id, sound }: Pick<Remark, 'id' | 'sound'>): Promise<Blob> {
  const here = local.get(sound!.sha256);
  if (here) return here.blob;
  const answer = await fetch(remarkSoundPath(id, sound!.sha256));
  if (!answer.ok) throw new Error('The recording is not here');
  return answer.blob();
}

/** The recording of a remark so that it can be sent again. */
export const keptAgain = async (remark: Pick<Remark, 'id' | 'sound'>): Promise<KeptSound> => ({
  ...remark.sound!,
  blob: await soundBlob(remark),
  microphone: { type: 'device' },
});
