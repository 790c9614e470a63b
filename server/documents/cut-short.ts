import type { SoundFormat } from './sound.ts';

/** Whether a recording says that it is longer than it is: it broke off on its way. What says nothing passes. */
export function isCutShort(bytes: Uint8Array, format: SoundFormat): boolean {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  return CHECKS[format](view);
}

const CHECKS: Record<SoundFormat, (view: DataView) => boolean> = {
  wav: isWavCut,
  mp3: isMp3Cut,
  ogg: isOggCut,
  webm: isWebmCut,
  mp4: (view) => endOfMp4(view) === undefined,
  // Frames follow each other; what is missing at the end nobody can tell.
  flac: () => false,
  aac: () => false,
};

const lettersAt = (view: DataView, at: number): string =>
  at + 4 <= view.byteLength ? String.fromCharCode(...[0, 1, 2, 3].map((step) => view.getUint8(at + step))) : '';

/** Programs that write while they record do not know the size yet, and leave the largest, or none (common practice). */
const UNKNOWN_SIZES = new Set([0, 0x7fff_ffff, 0xffff_ffff]);

/** RIFF: the size of the whole stands behind the first four letters; in RF64 (EBU Tech 3306) in a chunk of its own. */
function isWavCut(view: DataView): boolean {
  const size = view.getUint32(4, true);
  if (lettersAt(view, 0) === 'RF64')
    return lettersAt(view, 12) === 'ds64' && Number(view.getBigUint64(20, true)) + 8 > view.byteLength;
  return !UNKNOWN_SIZES.has(size) && size < 0x7fff_f000 && size + 8 > view.byteLength;
}

/** What a film or recording is made of; what stands behind its end is none of these. */
const MP4_BOXES = new Set([
  'ftyp',
  'moov',
  'mdat',
  'moof',
  'free',
  'skip',
  'wide',
  'uuid',
  'meta',
  'sidx',
  'styp',
  'mfra',
]);

/**
 * ISO/IEC 14496-12: boxes follow each other to the end. Some programs leave bytes of their own behind it.
 * @returns where it ends; undefined where it is cut short
 */
export function endOfMp4(view: DataView): number | undefined {
  const seen = new Set<string>();
  const isWhole = (): boolean => seen.has('moov') && (seen.has('mdat') || seen.has('moof'));
  let at = 0;
  while (at + 8 <= view.byteLength) {
    const [size, name] = [view.getUint32(at), lettersAt(view, at + 4)];
    if (!MP4_BOXES.has(name) && isWhole()) return at;
    if (size === 0) return view.byteLength;
    const whole = size === 1 && at + 16 <= view.byteLength ? Number(view.getBigUint64(at + 8)) : size;
    if (whole < 8 || at + whole > view.byteLength) return undefined;
    seen.add(name);
    at += whole;
  }
  return isWhole() ? at : undefined;
}

/** RFC 3533, section 6: each page says how many segments it has, and how long each is. */
function isOggCut(view: DataView): boolean {
  let at = 0;
  let ended = false;
  while (at < view.byteLength) {
    // Behind the page that says it is the last there may be anything.
    if (lettersAt(view, at) !== 'OggS' || at + 27 > view.byteLength) return !ended;
    ended ||= (view.getUint8(at + 5) & 4) !== 0;
    const segments = view.getUint8(at + 26);
    if (at + 27 + segments > view.byteLength) return true;
    let size = 27 + segments;
    for (let index = 0; index < segments; index++) size += view.getUint8(at + 27 + index);
    at += size;
  }
  return at !== view.byteLength;
}

const SEGMENT = 0x18538067;

/** RFC 8794: after the head comes the segment, which says its size unless it was written while it was recorded. */
function isWebmCut(view: DataView): boolean {
  const head = ebmlSize(view, 4);
  if (!head) return true;
  const at = 4 + head.length + head.size;
  if (at + 5 > view.byteLength || view.getUint32(at) !== SEGMENT) return true;
  const segment = ebmlSize(view, at + 4);
  if (!segment) return true;
  return !segment.unknown && at + 4 + segment.length + segment.size > view.byteLength;
}

/** RFC 8794, section 4: the zeros before the first 1 say how many bytes follow. */
function ebmlSize(view: DataView, at: number): { length: number; size: number; unknown: boolean } | undefined {
  if (at >= view.byteLength) return undefined;
  const first = view.getUint8(at);
  const length = Math.clz32(first) - 23;
  if (length > 8 || at + length > view.byteLength) return undefined;
  let size = first & (0xff >> length);
  let unknown = size === 0xff >> length;
  for (let index = 1; index < length; index++) {
    const byte = view.getUint8(at + index);
    size = size * 256 + byte;
    unknown &&= byte === 0xff;
  }
  return { length, size, unknown };
}

/** The first frame of most encoders holds how many bytes there are (“Xing” or “Info”; common practice). */
function isMp3Cut(view: DataView): boolean {
  for (let at = 0; at + 16 < Math.min(view.byteLength, 8192); at++) {
    const letters = lettersAt(view, at);
    if (letters !== 'Xing' && letters !== 'Info') continue;
    const flags = view.getUint32(at + 4);
    const bytesAt = at + 8 + (flags & 1 ? 4 : 0);
    return (flags & 2) !== 0 && view.getUint32(bytesAt) > view.byteLength;
  }
  return false;
}
