import { fileTypeFromBuffer } from 'file-type';
import type { z } from 'zod';
import type { SoundType } from '../../contract/sound.ts';
import { problems } from '../errors.ts';

const TYPES: Record<string, z.infer<typeof SoundType>> = {
  webm: 'audio/webm',
  ogg: 'audio/ogg',
  oga: 'audio/ogg',
  opus: 'audio/ogg',
  mp4: 'audio/mp4',
  m4a: 'audio/mp4',
  wav: 'audio/wav',
};

/** What a recording is, by its bytes and not by its name. */
export async function soundType(bytes: Buffer): Promise<z.infer<typeof SoundType>> {
  if (bytes.length === 0) throw problems.soundEmpty();
  const type = TYPES[(await fileTypeFromBuffer(bytes))?.ext ?? ''];
  if (!type) throw problems.soundUnknown();
  return type;
}
