import { countWords, flowingFolio } from '#core/folio';
import { unzipSync } from 'fflate';
import mammoth from 'mammoth';
import path from 'node:path';
import { blocksOfHtml } from './html-blocks.ts';
import { documentErrors, type DocumentPicture, type ReadResult } from './document.ts';

/** What a document may unpack to; declared sizes are checked before anything is unpacked. */
const MAX_UNPACKED_BYTES = 300 * 1024 * 1024;

const PICTURE_TYPES = new Set(['image/png', 'image/jpeg', 'image/gif', 'image/webp', 'image/bmp']);

const STYLES = [
  "p[style-name='Title'] => h1:fresh",
  "p[style-name='Subtitle'] => h2:fresh",
  'u => u',
  'strike => s',
  'br[type="page"] => ',
];

/** Reads an Office Open XML text document (ECMA-376). */
export async function readDocx(bytes: Uint8Array, fileName: string): Promise<ReadResult> {
  checkPackage(bytes);
  const pictures: DocumentPicture[] = [];
  const html = await mammoth
    .convertToHtml(
      { buffer: Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength) },
      {
        styleMap: STYLES,
        ignoreEmptyParagraphs: false,
        convertImage: mammoth.images.imgElement(async (image) => {
          if (!PICTURE_TYPES.has(image.contentType)) return { src: '' };
          pictures.push({ mediaType: image.contentType, bytes: await image.readAsBuffer() });
          return { src: `picture:${pictures.length - 1}` };
        }),
      },
    )
    .catch(() => {
      throw documentErrors.broken();
    });
  const folio = flowingFolio('docx', blocksOfHtml(html.value), path.parse(fileName).name);
  if (countWords(folio.text) === 0 && pictures.length === 0) throw documentErrors.withoutText();
  return { folio, pictures };
}

function checkPackage(bytes: Uint8Array): void {
  const names = new Set<string>();
  let unpacked = 0;
  try {
    unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        names.add(name);
        unpacked += originalSize;
        return false;
      },
    });
  } catch {
    throw documentErrors.broken();
  }
  if (unpacked > MAX_UNPACKED_BYTES) throw documentErrors.tooLarge();
  if (![...names].some((name) => name.startsWith('word/'))) throw documentErrors.unknown();
}
