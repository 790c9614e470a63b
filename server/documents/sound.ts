import { parseBuffer } from 'music-metadata';
import { endOfMp4, isCutShort } from './cut-short.ts';
import { documentErrors, documentNotes, type FileFormat, type Reader } from './document.ts';
import { headOfWebm, lengthOfWebm } from './webm-live.ts';

export const SOUND_TYPES = {
  wav: 'audio/wav',
  mp3: 'audio/mpeg',
  ogg: 'audio/ogg',
  webm: 'audio/webm',
  mp4: 'audio/mp4',
  flac: 'audio/flac',
  aac: 'audio/aac',
} as const satisfies Partial<Record<FileFormat, string>>;

export type SoundFormat = keyof typeof SOUND_TYPES;

/** Without what the library stumbles over. */
function asLibraryReads(bytes: Uint8Array, format: SoundFormat): Uint8Array {
  if (format === 'mp4')
    return bytes.subarray(0, endOfMp4(new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)));
  if (format === 'webm') return headOfWebm(bytes);
  return format === 'wav' ? asRiff(bytes) : bytes;
}

/** RF64 (EBU Tech 3306) is RIFF with the lengths in a chunk of their own, where the library does not look. */
function asRiff(bytes: Uint8Array): Uint8Array {
  if (Buffer.from(bytes.subarray(0, 4)).toString('latin1') !== 'RF64') return bytes;
  const copy = Buffer.from(bytes);
  copy.write('RIFF', 0, 'latin1');
  const data = copy.indexOf('data', 12, 'latin1');
  if (data > 0 && data + 8 <= copy.length) copy.writeUInt32LE(Math.min(copy.length - data - 8, 0xffff_ffff), data + 4);
  return copy;
}

/** Reads a recording, with or without a picture: what it holds and how long it is. It is drawn and played in the browser. */
export const readSound =
  (format: SoundFormat): Reader =>
  async (bytes) => {
    const { format: found, common } = await parseBuffer(asLibraryReads(bytes, format), SOUND_TYPES[format], {
      duration: true,
      skipCovers: true,
    });
    const video = found.hasVideo === true || (found.trackInfo ?? []).some(({ type }) => type === 1);
    if (!found.hasAudio && !video) throw documentErrors.noSound(format);
    if (isCutShort(bytes, format)) throw documentErrors.broken(format);
    const h265 =
      format === 'mp4' && (found.trackInfo ?? []).some(({ codecName }) => /hvc1|hev1|hevc/iu.test(codecName ?? ''));
    const duration = found.duration ?? (format === 'webm' ? lengthOfWebm(bytes) : undefined);
    return {
      title: common.title,
      ...(h265 && { notes: [documentNotes.h265] }),
      leaves: [
        {
          kind: 'sound',
          label: video ? 'Video' : 'Recording',
          duration: duration && Number.isFinite(duration) ? duration : null,
          video,
        },
      ],
    };
  };
