import { remarkSoundPath, replySoundPath, type Remark, type Reply } from '#contract/remarks';
import type { KeptSound } from './changes.ts';

/** Sounds that were made in this page, by their SHA-256: they play from memory, before and after the server has them. */
const local = new Map<string, string>();

export function rememberSound({ sha256, blob }: KeptSound): void {
  if (!local.has(sha256)) local.set(sha256, URL.createObjectURL(blob));
}

export const remarkSoundUrl = ({ id, sound }: Pick<Remark, 'id' | 'sound'>): string =>
  local.get(sound.sha256) ?? remarkSoundPath(id, sound.sha256);

export const replySoundUrl = ({ id, sound }: Pick<Reply, 'id' | 'sound'>): string =>
  local.get(sound!.sha256) ?? replySoundPath(id, sound!.sha256);
