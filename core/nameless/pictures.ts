/** A picture or a sound without who made it, when and where; the same bytes where its format keeps no such thing. */
export function withoutPictureNames(bytes: Uint8Array, format: string): Uint8Array {
  if (format === 'jpeg') return jpeg(bytes);
  if (format === 'png') return png(bytes);
  if (format === 'webp') return webp(bytes);
  return format === 'mp3' ? mp3(bytes) : bytes;
}

const view = (bytes: Uint8Array): DataView => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}

const ORIENTATION = 0x0112;

/** Segments of applications and comments go, but for JFIF, colour profiles and what Adobe says of colours (ITU-T T.81, B.2.4). */
function jpeg(bytes: Uint8Array): Uint8Array {
  const data = view(bytes);
  if (bytes.length < 4 || data.getUint16(0) !== 0xffd8) return bytes;
  const parts: Uint8Array[] = [bytes.subarray(0, 2)];
  let at = 2;
  while (at + 4 <= bytes.length && bytes[at] === 0xff) {
    const marker = bytes[at + 1]!;
    if (marker === 0xff) {
      at++;
      continue;
    }
    if (marker === 0xda || marker === 0xd9) break;
    const end = at + 2 + data.getUint16(at + 2);
    if (end > bytes.length) break;
    const isApplication = marker >= 0xe0 && marker <= 0xef;
    const kept = !isApplication ? marker !== 0xfe : marker === 0xe0 || marker === 0xe2 || marker === 0xee;
    if (kept) parts.push(bytes.subarray(at, end));
    else if (marker === 0xe1) parts.push(...upright(bytes.subarray(at, end)));
    at = end;
  }
  return joined([...parts, bytes.subarray(at)]);
}

/** Of all that a camera notes, how it was held is what the picture needs (Exif 2.32, 4.6.4). */
function upright(segment: Uint8Array): Uint8Array[] {
  const orientation = orientationIn(segment);
  if (orientation === undefined || orientation === 1) return [];
  // "Exif", the head of a TIFF file in big-endian order, and one entry.
  const head = [0xff, 0xe1, 0, 34, 0x45, 0x78, 0x69, 0x66, 0, 0, 0x4d, 0x4d, 0, 42, 0, 0, 0, 8, 0, 1];
  return [new Uint8Array([...head, 0x01, 0x12, 0, 3, 0, 0, 0, 1, 0, orientation, 0, 0, 0, 0, 0, 0])];
}

function orientationIn(segment: Uint8Array): number | undefined {
  const tiff = segment.subarray(10);
  if (String.fromCharCode(...segment.subarray(4, 8)) !== 'Exif' || tiff.length < 10) return undefined;
  const data = view(tiff);
  const little = data.getUint16(0) === 0x4949;
  const from = data.getUint32(4, little);
  if (from + 2 > tiff.length) return undefined;
  const entries = data.getUint16(from, little);
  for (let entry = 0; entry < entries; entry++) {
    const at = from + 2 + entry * 12;
    if (at + 12 > tiff.length) return undefined;
    if (data.getUint16(at, little) === ORIENTATION) {
      const found = data.getUint16(at + 8, little);
      return found >= 1 && found <= 8 ? found : undefined;
    }
  }
  return undefined;
}

const TOLD_BY_PNG = new Set(['tEXt', 'zTXt', 'iTXt', 'eXIf', 'tIME']);

/** PNG (third edition), 11.3.3. */
function png(bytes: Uint8Array): Uint8Array {
  const data = view(bytes);
  if (bytes.length < 8 || data.getUint32(0) !== 0x89504e47) return bytes;
  const parts = [bytes.subarray(0, 8)];
  let at = 8;
  while (at + 12 <= bytes.length) {
    const end = at + 12 + data.getUint32(at);
    if (end > bytes.length) break;
    const name = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
    if (!TOLD_BY_PNG.has(name)) parts.push(bytes.subarray(at, end));
    at = end;
  }
  return joined([...parts, bytes.subarray(at)]);
}

/** RFC 9649, 2.7: chunks EXIF and XMP, and the flags that announce them. */
function webp(bytes: Uint8Array): Uint8Array {
  const data = view(bytes);
  if (bytes.length < 16 || String.fromCharCode(...bytes.subarray(8, 12)) !== 'WEBP') return bytes;
  const parts: Uint8Array[] = [];
  let at = 12;
  while (at + 8 <= bytes.length) {
    const length = data.getUint32(at + 4, true);
    const end = Math.min(bytes.length, at + 8 + length + (length % 2));
    const name = String.fromCharCode(...bytes.subarray(at, at + 4));
    const chunk = bytes.slice(at, end);
    if (name === 'VP8X') chunk[8]! &= ~0x0c;
    if (name !== 'EXIF' && name !== 'XMP ') parts.push(chunk);
    at = end;
  }
  const body = joined(parts);
  const head = bytes.slice(0, 12);
  view(head).setUint32(4, body.length + 4, true);
  return joined([head, body]);
}

/** Tags before and after the sound (ID3v2.4, 3.1; ID3v1 is the last 128 bytes). */
function mp3(bytes: Uint8Array): Uint8Array {
  const tag = (at: number, name: string): boolean => String.fromCharCode(...bytes.subarray(at, at + 3)) === name;
  let from = 0;
  if (bytes.length > 10 && tag(0, 'ID3')) {
    const size = bytes.subarray(6, 10).reduce((sum, byte) => sum * 128 + (byte & 0x7f), 0);
    from = Math.min(bytes.length, 10 + size + (bytes[5]! & 0x10 ? 10 : 0));
  }
  const to = bytes.length - from > 128 && tag(bytes.length - 128, 'TAG') ? bytes.length - 128 : bytes.length;
  return bytes.subarray(from, to);
}
