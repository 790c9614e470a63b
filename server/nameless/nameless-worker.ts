import { CannotStrip, withoutNames } from '#core/nameless';
import { answerTasks } from '../threads/asked-thread.ts';

export interface ToStrip {
  bytes: Uint8Array;
  format: string;
}

/** Re-encodes the picture, which leaves out all metadata that a phone or scanner wrote into it. */
async function otherWithoutNames(bytes: Uint8Array, format: 'tiff' | 'heic'): Promise<Uint8Array> {
  try {
    if (format === 'heic') return (await (await import('../documents/other-picture.ts')).heicPhoto(bytes)).bytes;
    const { default: sharp } = await import('sharp');
    return await sharp(bytes, { pages: -1, limitInputPixels: false }).tiff({ compression: 'deflate' }).toBuffer();
  } catch {
    throw new CannotStrip();
  }
}

answerTasks<ToStrip, 'cannot' | null>(
  ({ bytes, format }) =>
    format === 'tiff' || format === 'heic' ? otherWithoutNames(bytes, format) : withoutNames(bytes, format),
  (error) => (error instanceof CannotStrip ? 'cannot' : null),
);
