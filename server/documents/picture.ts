import { imageSize } from 'image-size';
import { documentErrors, type DocumentPicture, type FileFormat, type Reader } from './document.ts';

const MEDIA_TYPES = { png: 'image/png', jpeg: 'image/jpeg', webp: 'image/webp', gif: 'image/gif' } as const;
const MAX_PIXELS = 100_000_000;

/** EXIF 2.32, tag 274: from 5 on the picture lies on its side. */
const ON_ITS_SIDE = 5;

/** The last bytes of a complete file: ISO/IEC 15948 (PNG) section 11.2.5, ISO/IEC 10918-1 (JPEG) table B.1, GIF89a section 27. */
const ENDS: Partial<Record<FileFormat, Buffer>> = {
  png: Buffer.from('IEND'),
  jpeg: Buffer.from([0xff, 0xd9]),
  gif: Buffer.from([0x00, 0x3b]),
};

export const areMany = (width: number, height: number): boolean => width * height > MAX_PIXELS;

/** Whether a browser that shows a picture of a document would run out of memory. One that is of no known kind it does not show. */
export function isTooLarge({ bytes }: DocumentPicture): boolean {
  try {
    const { width, height } = imageSize(bytes);
    return areMany(width, height);
  } catch {
    return false;
  }
}

/** Reads a picture; browsers turn it upright by themselves, so its size is that of the upright picture. */
export const readPicture =
  (format: keyof typeof MEDIA_TYPES): Reader =>
  (bytes) => {
    const buffer = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    const end = ENDS[format];
    if (end && buffer.lastIndexOf(end) < 0) throw documentErrors.broken(format);
    // RIFF says its own length (WebP container specification, “RIFF File Format”).
    if (format === 'webp' && buffer.readUInt32LE(4) + 8 > buffer.length) throw documentErrors.broken(format);
    const { width, height, orientation = 1 } = imageSize(bytes);
    if (!(width > 0 && height > 0)) throw documentErrors.broken(format);
    if (areMany(width, height)) throw documentErrors.noPicture(format);
    const upright = orientation >= ON_ITS_SIDE ? { width: height, height: width } : { width, height };
    return {
      leaves: [{ kind: 'picture', label: 'Picture', picture: 0, ...upright }],
      pictures: [{ mediaType: MEDIA_TYPES[format], bytes }],
    };
  };
