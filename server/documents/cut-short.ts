import type { SoundFormat } from './sound.ts';

/** Whether a recording says that it is longer than it is: it broke off on its way. What says nothing passes. */
export function isCutShort(bytes: Uint8Array, format: SoundFormat): boolean {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  return CHECKS[format](view);
}

const CHECKS: Record<SoundFormat, (view: DataView) => boolean> = {
  // RIFF: the size of the whole stands behind the first four letters.
  wav: (view) => view.getUint32(4, true) + 8 > view.byteLength,
  mp3: isMp3Cut,
  ogg: isOggCut,
  webm: isWebmCut,
  mp4: isMp4Cut,
};

const lettersAt = (view: DataView, at: number): string =>
  at + 4 <= view.byteLength ? String.fromCharCode(...[0, 1, 2, 3].map((step) => view.getUint8(at + step))) : '';

/** ISO/IEC 14496-12: boxes follow each other to the very end. */
function isMp4Cut(view: DataView): boolean {
  let at = 0;
  while (at + 8 <= view.byteLength) {
    const size = view.getUint32(at);
    if (size === 0) return false;
    const whole = size === 1 && at + 16 <= view.byteLength ? Number(view.getBigUint64(at + 8)) : size;
    if (whole < 8) return true;
    at += whole;
  }
  return at !== view.byteLength;
}

/** RFC 3533, section 6: each page says how many segments it has, and how long each is. */
function isOggCut(view: DataView): boolean {
  let at = 0;
  while (at < view.byteLength) {
    if (lettersAt(view, at) !== 'OggS' || at + 27 > view.byteLength) return true;
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
