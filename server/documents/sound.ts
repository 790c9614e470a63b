import { parseBuffer } from 'music-metadata';
import { isCutShort } from './cut-short.ts';
import { documentErrors, type FileFormat, type Reader } from './document.ts';

export const SOUND_TYPES = {
  wav: 'audio/wav',
  mp3: 'audio/mpeg',
  ogg: 'audio/ogg',
  webm: 'audio/webm',
  mp4: 'audio/mp4',
} as const satisfies Partial<Record<FileFormat, string>>;

export type SoundFormat = keyof typeof SOUND_TYPES;

/** Reads a recording, with or without a picture: what it holds and how long it is. It is drawn and played in the browser. */
export const readSound =
  (format: SoundFormat): Reader =>
  async (bytes) => {
    const { format: found, common } = await parseBuffer(bytes, SOUND_TYPES[format], {
      duration: true,
      skipCovers: true,
    });
    const video = found.hasVideo === true || (found.trackInfo ?? []).some(({ type }) => type === 1);
    if (!found.hasAudio && !video) throw documentErrors.noSound(format);
    if (isCutShort(bytes, format)) throw documentErrors.broken(format);
    return {
      title: common.title,
      leaves: [
        {
          kind: 'sound',
          label: video ? 'Video' : 'Recording',
          duration: found.duration && Number.isFinite(found.duration) ? found.duration : null,
          video,
        },
      ],
    };
  };
