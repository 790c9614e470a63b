import { bulkOf, type Format, type ReadFile } from '#core/folio';
import type { Encoding, ReadNote } from '../../contract/uploads.ts';

export interface DocumentPicture {
  mediaType: string;
  bytes: Uint8Array;
}

/** How much there is to read, and to keep: `json` is all that is known of it as JSON, in UTF-16 units. */
export interface Bulk {
  characters: number;
  lines: number;
  json: number;
}

/** One file as read: its part of the folio, and the pictures that it counts. */
export interface ReadResult {
  file: ReadFile;
  pictures: DocumentPicture[];
  bulk: Bulk;
  /** What its student should know about how it was read. */
  notes: Omit<ReadNote, 'file'>[];
}

/** A document that cannot be read. The message is a sentence for the person who handed it in. */
export class DocumentError extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'DocumentError';
  }
}

/** What people call each format. */
export const FORMAT_NAMES: Record<Exclude<Format, 'answers'>, string> = {
  docx: 'Word document (.docx)',
  odt: 'OpenDocument text (.odt)',
  pdf: 'PDF',
  pptx: 'PowerPoint presentation (.pptx)',
  odp: 'OpenDocument presentation (.odp)',
  markdown: 'Markdown text (.md)',
  text: 'plain text (.txt)',
  html: 'web page (.html)',
  epub: 'e-book (.epub)',
  png: 'PNG picture',
  jpeg: 'JPEG picture',
  webp: 'WebP picture',
  gif: 'GIF picture',
  tiff: 'TIFF picture',
  heic: 'HEIC picture',
  wav: 'WAV recording',
  mp3: 'MP3 recording',
  ogg: 'Ogg recording',
  webm: 'WebM recording',
  mp4: 'MP4 recording (.m4a or .mp4)',
  flac: 'FLAC recording',
  aac: 'AAC recording',
  csv: 'table (.csv)',
  xlsx: 'Excel workbook (.xlsx)',
  ods: 'OpenDocument spreadsheet (.ods)',
};

export type FileFormat = keyof typeof FORMAT_NAMES;

/** What a browser can still show beside its margin, and a server compare with the version before. */
const MOST: Bulk = { characters: 1_000_000, lines: 20_000, json: 16_000_000 };

export const bulkOfFile = ({ leaves }: Pick<ReadFile, 'leaves'>): Bulk => ({
  ...bulkOf(leaves),
  json: JSON.stringify(leaves).length,
});

/** Whether files are too much for one work. */
export const isTooMuch = (files: readonly Bulk[]): boolean =>
  (Object.keys(MOST) as (keyof Bulk)[]).some((key) => files.reduce((sum, bulk) => sum + bulk[key], 0) > MOST[key]);

const counted = (number: number): string => number.toLocaleString('en');

export const documentErrors = {
  empty: () => new DocumentError('This file is empty (0 bytes). Save your work again and hand in the new file.'),
  unknown: () =>
    new DocumentError(
      'This file is of a kind that cannot be read here. Texts (.docx, .odt, .pdf, .md, .txt, .html, .epub), slides (.pptx, .odp), pictures (.png, .jpg, .webp, .gif, .tiff, .heic), recordings (.wav, .mp3, .ogg, .webm, .m4a, .mp4, .flac, .aac) and tables (.csv, .xlsx, .ods) can be handed in.',
    ),
  otherText: (fileName: string) =>
    new DocumentError(
      `“${fileName}” has the name of another kind of file: inside it is plain text. Save it again in the format that its name says, or give it the right ending.`,
    ),
  oldOffice: () =>
    new DocumentError(
      'This file is of an old Office version (.doc, .xls or .ppt). Save it as .docx, .xlsx or .pptx and hand that in.',
    ),
  locked: (format?: FileFormat) =>
    new DocumentError(
      `This ${format ? FORMAT_NAMES[format] : 'Office file'} is locked with a password. Save it without a password and hand that in.`,
    ),
  richText: () =>
    new DocumentError('Rich Text (.rtf) cannot be read here. Save it as .docx, .odt or PDF and hand that in.'),
  film: () =>
    new DocumentError(
      'This film is of a kind that many browsers cannot play. Export it as .mp4 with H.264 and AAC, which the programs of phones and computers offer as “most compatible”, and hand that in.',
    ),
  otherOpenDocument: () =>
    new DocumentError(
      'Of OpenDocument files, texts (.odt), presentations (.odp) and spreadsheets (.ods) can be read here. Save it as PDF and hand that in.',
    ),
  broken: (format: FileFormat) =>
    new DocumentError(
      `This ${FORMAT_NAMES[format]} is damaged or not complete: it cannot be opened. Open it in the program that made it, save it again and hand in the new file.`,
    ),
  unreadable: () =>
    new DocumentError(
      'This file could not be read. Open it in the program that made it, save it again and try once more.',
    ),
  tooLarge: () =>
    new DocumentError('This document unpacks to more than can be read. Make its pictures smaller and try again.'),
  tooManyCells: () =>
    new DocumentError(
      'This table has more than 50,000 cells, too many to read beside it. Hand in the part that matters.',
    ),
  tooManyPages: () =>
    new DocumentError('This document has more than 500 pages. Hand in the part that matters, or split it.'),
  tooMuchText: () =>
    new DocumentError(
      `This is more text than can be marked as one work: up to ${counted(MOST.characters)} characters in ${counted(MOST.lines)} paragraphs, about 300 pages. Hand in the part that matters.`,
    ),
  tooSlow: () => new DocumentError('This document took too long to read. Save it again, or split it, and try again.'),
  withoutText: () =>
    new DocumentError(
      'There is no text in this document that could be marked. If it shows something else, hand it in as a PDF; otherwise check that you chose the right file.',
    ),
  noNotebook: () =>
    new DocumentError('This notebook (.ipynb) is damaged or not complete. Save it again and hand in the new file.'),
  sound: () =>
    new DocumentError(
      'This recording is of a kind that many browsers cannot play. Export it as .mp3, .m4a or .wav and hand that in.',
    ),
  emptyCells: () =>
    new DocumentError(
      'There is nothing in the cells of this workbook that could be marked; charts and drawings cannot be read from it. Hand them in as a PDF.',
    ),
  noPicture: (format: FileFormat) =>
    new DocumentError(
      `This ${FORMAT_NAMES[format]} is too large to be shown: at most 100 million pixels. Make it smaller.`,
    ),
  pictureTooLarge: () =>
    new DocumentError(
      'A picture in this document is too large to be shown: at most 100 million pixels. Make it smaller and try again.',
    ),
  noSound: (format: FileFormat) =>
    new DocumentError(
      `There is no sound and no picture in this ${FORMAT_NAMES[format]}. Check that you chose the right file.`,
    ),
};

/** What a student should know about how a file was read. */
export const documentNotes = {
  misnamed: (format: FileFormat) =>
    `Its name says something else, but inside it is a ${FORMAT_NAMES[format]}, and it was read as that.`,
  h265: 'This film is stored as H.265 (HEVC), which some browsers can’t play. If the picture stays black, export it as H.264 and hand that in.',
  scanned: (wordless: number, pages: number) =>
    `${wordless} of ${pages} ${pages === 1 ? 'page' : 'pages'} ${wordless === 1 ? 'has' : 'have'} no text, as in a scan, so no single words can be commented on there. If you have the document it was made from, hand that in instead.`,
  unreadable: (parts: readonly string[]) =>
    `A part of this file is damaged and could not be read: ${parts.join(', ')}. The rest is here. If the part matters, save the document again and hand it in once more.`,
  guessed:
    'It does not say how its letters are stored, so that was guessed. If letters look wrong, choose another way.',
};

/** What a reader of one format gives: its leaves in order. */
export interface Reading {
  title?: string | undefined;
  language?: string | undefined;
  leaves: ReadFile['leaves'];
  pictures?: DocumentPicture[];
  /** As what its characters were read, where nothing says so. */
  guessed?: Encoding | undefined;
  /** What else its student should know. */
  notes?: readonly string[];
}

/** How far a reader is. */
export interface PagesRead {
  read: number;
  of: number;
}

/** How a document is to be read. */
export interface ReadOptions {
  /** How a text is stored, where a person has said so. */
  encoding?: Encoding | undefined;
  onPage?: ((pages: PagesRead) => void) | undefined;
}

export type Reader = (bytes: Uint8Array, fileName: string, options: ReadOptions) => Reading | Promise<Reading>;

export type ReadDocument = (bytes: Uint8Array, fileName: string, options?: ReadOptions) => Promise<ReadResult>;
/** Reads for somebody, in turn with the others; `bytes` are fetched when it is their turn. */
export type ReadDocumentFor = (
  who: string,
  bytes: () => Promise<Uint8Array>,
  fileName: string,
  options?: ReadOptions,
) => Promise<ReadResult>;
