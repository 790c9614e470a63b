import decodeHeic from 'heic-decode';
import sharp from 'sharp';
import { documentErrors, type DocumentPicture, type FileFormat, type Reader } from './document.ts';
import { areMany } from './picture.ts';

/*
 * Pictures that browsers do not show are shown as others: the pages of a TIFF (Adobe, TIFF 6.0) as PNG, and a photograph of a phone
 * (HEIF, ISO/IEC 23008-12) as JPEG. The file that was handed in stays as it is.
 */

const MAX_PAGES = 200;
/** Of JPEG, from 1 to 100: nothing is seen of the loss. */
const QUALITY = 90;

interface Shown extends DocumentPicture {
  width: number;
  height: number;
}

export const readOtherPicture =
  (format: 'tiff' | 'heic'): Reader =>
  async (bytes) => {
    const shown = await (format === 'tiff' ? tiffPages(bytes) : [await heicPhoto(bytes)]);
    return {
      leaves: shown.map(({ width, height }, picture) => ({
        ...{ kind: 'picture', width, height, picture },
        label: shown.length > 1 ? `Page ${picture + 1}` : 'Picture',
      })),
      pictures: shown.map(({ mediaType, bytes: made }) => ({ mediaType, bytes: made })),
    };
  };

async function tiffPages(bytes: Uint8Array): Promise<Shown[]> {
  const { pages = 1 } = await orRefuse('tiff', sharp(bytes).metadata());
  if (pages > MAX_PAGES) throw documentErrors.tooManyPages();
  const shown: Shown[] = [];
  for (let page = 0; page < pages; page++) {
    const opened = sharp(bytes, { page, limitInputPixels: false });
    const { width, height } = await orRefuse('tiff', opened.metadata());
    if (areMany(width, height)) throw documentErrors.noPicture('tiff');
    const { data, info } = await orRefuse('tiff', opened.rotate().png().toBuffer({ resolveWithObject: true }));
    shown.push({ mediaType: 'image/png', bytes: data, width: info.width, height: info.height });
  }
  return shown;
}

/** The photograph, upright, without what its phone wrote into it. */
export async function heicPhoto(bytes: Uint8Array): Promise<Shown> {
  const images = await orRefuse('heic', decodeHeic.all({ buffer: bytes }));
  try {
    const [photo] = images;
    if (!photo) throw documentErrors.broken('heic');
    const { width, height } = photo;
    if (areMany(width, height)) throw documentErrors.noPicture('heic');
    const { data } = await orRefuse('heic', photo.decode());
    const raw = sharp(Buffer.from(data.buffer, data.byteOffset, data.byteLength), {
      raw: { width, height, channels: 4 },
    });
    const jpeg = await orRefuse('heic', raw.flatten({ background: '#ffffff' }).jpeg({ quality: QUALITY }).toBuffer());
    return { mediaType: 'image/jpeg', bytes: jpeg, width, height };
  } finally {
    images.dispose();
  }
}

async function orRefuse<T>(format: FileFormat, work: Promise<T>): Promise<T> {
  try {
    return await work;
  } catch {
    throw documentErrors.broken(format);
  }
}
