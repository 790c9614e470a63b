import { imageSize } from 'image-size';

/** What office programs take where a picture says nothing (common practice): pixels to the inch. */
const USUAL = 96;
const INCH = 0.0254;

/** How large a picture is on paper, in points; undefined where it is none. */
export function picturePoints(bytes: Uint8Array): { width: number; height: number } | undefined {
  try {
    const { width, height } = imageSize(bytes);
    const { x, y } = densityOf(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
    return { width: (width * 72) / x, height: (height * 72) / y };
  } catch {
    return undefined;
  }
}

/** Pixels to the inch: the chunk pHYs of PNG (ISO/IEC 15948, 11.3.5.3), the header of JFIF (ISO/IEC 10918-5, 10.1). */
function densityOf(bytes: Buffer): { x: number; y: number } {
  const chunk = bytes.subarray(0, 2048).indexOf('pHYs');
  if (bytes.toString('latin1', 1, 4) === 'PNG' && chunk > 0 && bytes[chunk + 12] === 1)
    return perInch(bytes.readUInt32BE(chunk + 4) * INCH, bytes.readUInt32BE(chunk + 8) * INCH);
  if (bytes.toString('latin1', 6, 10) === 'JFIF' && (bytes[13] === 1 || bytes[13] === 2)) {
    const unit = bytes[13] === 2 ? 2.54 : 1;
    return perInch(bytes.readUInt16BE(14) * unit, bytes.readUInt16BE(16) * unit);
  }
  return { x: USUAL, y: USUAL };
}

const perInch = (x: number, y: number): { x: number; y: number } =>
  x > 0 && y > 0 ? { x, y } : { x: USUAL, y: USUAL };
