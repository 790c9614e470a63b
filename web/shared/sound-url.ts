import {
  remarkFilePath,
  remarkSoundPath,
  remarkStampPath,
  replySoundPath,
  type Remark,
  type Reply,
} from '#contract/remarks';
import type { Sound } from '#contract/sound';
import type { KeptSound } from './changes.ts';

/** Bytes that were made in this page, by their SHA-256: they play from memory, before and after the server has them. */
const local = new Map<string, string>();

export function rememberSound({ sha256, blob }: Pick<KeptSound, 'sha256' | 'blob'>): void {
  if (!local.has(sha256)) local.set(sha256, URL.createObjectURL(blob));
}

const FRESH = 'fresh ';

/** A recording that can be heard but has no file yet, and so no SHA-256. */
export function freshSound(id: string, wav: Blob, about: Omit<Sound, 'sha256'>): Sound {
  const sha256 = `${FRESH}${id}`;
  rememberSound({ sha256, blob: wav });
  return { ...about, sha256 };
}

export const isFresh = (sound: Sound | null): boolean => sound?.sha256.startsWith(FRESH) ?? false;

export const remarkSoundUrl = ({ id, sound }: Pick<Remark, 'id' | 'sound'>): string =>
  sound ? (local.get(sound.sha256) ?? remarkSoundPath(id, sound.sha256)) : '';

export const replySoundUrl = ({ id, sound }: Pick<Reply, 'id' | 'sound'>): string =>
  local.get(sound!.sha256) ?? replySoundPath(id, sound!.sha256);

export const remarkFileUrl = ({ id, file }: Pick<Remark, 'id' | 'file'>): string =>
  file ? (local.get(file.sha256) ?? remarkFilePath(id, file.sha256)) : '';

export const stampUrl = (id: string, sha256: string): string => local.get(sha256) ?? remarkStampPath(id, sha256);

/** The recording of a remark with its bytes, so that it can be sent again. */
export async function keptAgain({ id, sound }: Pick<Remark, 'id' | 'sound'>): Promise<KeptSound> {
  const answer = await fetch(remarkSoundUrl({ id, sound }));
  if (!answer.ok) throw new Error('The recording is not here');
  return { ...sound!, blob: await answer.blob(), microphone: { type: 'device' } };
}
