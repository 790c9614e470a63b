import { wellFormedIn } from '#core/text';
import path from 'node:path';
import { detectFormat } from './detect.ts';
import {
  bulkOfFile,
  DocumentError,
  documentErrors,
  documentNotes,
  isTooMuch,
  type FileFormat,
  type ReadDocument,
  type Reader,
} from './document.ts';

/** One reader a format, loaded when the first file of its format comes. */
const READERS: Record<FileFormat, () => Promise<Reader>> = {
  docx: async () => (await import('./docx.ts')).readDocx,
  odt: async () => (await import('./odt.ts')).readOdt,
  pdf: async () => (await import('./pdf.ts')).readPdf,
  pptx: async () => (await import('./pptx.ts')).readPptx,
  odp: async () => (await import('./odp.ts')).readOdp,
  markdown: async () => (await import('./markdown.ts')).readMarkdown,
  text: async () => (await import('./text.ts')).readText,
  html: async () => (await import('./html.ts')).readHtml,
  epub: async () => (await import('./epub.ts')).readEpub,
  png: async () => (await import('./picture.ts')).readPicture('png'),
  jpeg: async () => (await import('./picture.ts')).readPicture('jpeg'),
  webp: async () => (await import('./picture.ts')).readPicture('webp'),
  gif: async () => (await import('./picture.ts')).readPicture('gif'),
  tiff: async () => (await import('./other-picture.ts')).readOtherPicture('tiff'),
  heic: async () => (await import('./other-picture.ts')).readOtherPicture('heic'),
  wav: async () => (await import('./sound.ts')).readSound('wav'),
  mp3: async () => (await import('./sound.ts')).readSound('mp3'),
  ogg: async () => (await import('./sound.ts')).readSound('ogg'),
  webm: async () => (await import('./sound.ts')).readSound('webm'),
  mp4: async () => (await import('./sound.ts')).readSound('mp4'),
  flac: async () => (await import('./sound.ts')).readSound('flac'),
  aac: async () => (await import('./sound.ts')).readSound('aac'),
  csv: async () => (await import('./csv.ts')).readCsv,
  xlsx: async () => (await import('./xlsx.ts')).readXlsx,
  ods: async () => (await import('./ods.ts')).readOds,
};

/**
 * Reads a document in this thread, choosing the reader by the bytes.
 * @throws DocumentError
 */
export const readDocument: ReadDocument = async (bytes, fileName, options = {}) => {
  const { format, misnamed } = await detectFormat(bytes, fileName, options.encoding);
  const read = await READERS[format]();
  const {
    title,
    language,
    leaves,
    pictures = [],
    guessed,
    notes: told = [],
  } = await readOrRefuse(() => read(bytes, fileName, options), format);
  if (pictures.length > 0 && pictures.some((await import('./picture.ts')).isTooLarge))
    throw documentErrors.pictureTooLarge();
  const fallback = path.parse(fileName).name;
  const file = wellFormedIn({
    ...{ name: fileName, format, title: title ?? fallback },
    ...(language !== undefined && { language }),
    leaves,
  });
  const bulk = bulkOfFile(file);
  if (isTooMuch([bulk])) throw documentErrors.tooMuchText();
  const notes = [
    ...(misnamed ? [{ note: documentNotes.misnamed(format), encoding: null }] : []),
    ...told.map((note) => ({ note, encoding: null })),
    ...(guessed ? [{ note: documentNotes.guessed, encoding: guessed }] : []),
  ];
  return { file, pictures, bulk, notes };
};

/** Whatever a reader stumbles over is a fault of the file: it gets a sentence, and nobody else notices. */
async function readOrRefuse<T>(read: () => T | Promise<T>, format: FileFormat): Promise<T> {
  try {
    return await read();
  } catch (error) {
    throw error instanceof DocumentError ? error : documentErrors.broken(format);
  }
}
