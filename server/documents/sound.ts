import { parseBuffer } from 'music-metadata';
import { documentErrors, type FileFormat, type Reader } from './document.ts';

export const SOUND_TYPES = {
  wav: 'audio/wav',
  mp3: 'audio/mpeg',
  ogg: 'audio/ogg',
  webm: 'audio/webm',
  mp4: 'audio/mp4',
} as const satisfies Partial<Record<FileFormat, string>>;

/** Reads a recording, with or without a picture: what it holds and how long it is. It is drawn and played in the browser. */
export const readSound =
  (format: keyof typeof SOUND_TYPES): Reader =>
  async (bytes) => {
    const { format: found, common } = await parseBuffer(bytes, SOUND_TYPES[format], {
      duration: true,
      skipCovers: true,
    });
    const video = found.hasVideo === true || (found.trackInfo ?? []).some(({ type }) => type === 1);
    if (!found.hasAudio && !video) throw documentErrors.noSound(format);
    refuseCut(bytes, format);
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

/** A file that says how long it is and is not, broke off on its way. */
function refuseCut(bytes: Uint8Array, format: FileFormat): void {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  // RIFF: the size of the whole stands behind the first four letters.
  if (format === 'wav' && view.getUint32(4, true) + 8 > bytes.length) throw documentErrors.broken(format);
  // ISO/IEC 14496-12: boxes follow each other to the very end.
  if (format === 'mp4' && !boxesFit(view)) throw documentErrors.broken(format);
}

function boxesFit(view: DataView): boolean {
  let at = 0;
  while (at + 8 <= view.byteLength) {
    const size = view.getUint32(at);
    if (size === 0) return true;
    const whole = size === 1 && at + 16 <= view.byteLength ? Number(view.getBigUint64(at + 8)) : size;
    if (whole < 8) return false;
    at += whole;
  }
  return at === view.byteLength;
}
