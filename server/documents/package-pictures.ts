import path from 'node:path/posix';
import type { DocumentPicture } from './document.ts';
import type { Package } from './zip.ts';

/** Pictures that browsers show, by the endings of their names. */
const PICTURE_TYPES: Record<string, string> = {
  png: 'image/png',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  gif: 'image/gif',
  webp: 'image/webp',
  bmp: 'image/bmp',
};

/** Takes pictures out of a package: their numbers, each once; undefined for one that is missing or cannot be shown. */
export function packagePictures(files: Package, pictures: DocumentPicture[]): (name: string) => number | undefined {
  const known = new Map<string, number>();
  return (name) => {
    const mediaType = PICTURE_TYPES[path.extname(name).slice(1).toLowerCase()];
    const bytes = mediaType && files.bytes(name);
    if (!bytes) return undefined;
    const number = known.get(name) ?? pictures.push({ mediaType, bytes }) - 1;
    known.set(name, number);
    return number;
  };
}
