import { fileTypeFromBuffer } from 'file-type';
import path from 'node:path';
import type { Encoding } from '../../contract/uploads.ts';
import { documentErrors, type DocumentError, type FileFormat } from './document.ts';
import { decodeText } from './decode-text.ts';
import { namesInZip, openPackage } from './zip.ts';

const startsWith = (bytes: Uint8Array, signature: readonly number[]): boolean =>
  signature.every((byte, index) => bytes[index] === byte);

const ZIP = [0x50, 0x4b, 0x03, 0x04];
/** The container of .doc files and of encrypted .docx files: [MS-CFB] section 2.2. */
const COMPOUND_FILE = [0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1];
const ENCRYPTED_PACKAGE = Buffer.from('EncryptedPackage', 'utf16le');

/** The first part of an office document that says what it is. */
const PARTS: readonly (readonly [part: string, format: FileFormat])[] = [
  ['word/', 'docx'],
  ['ppt/', 'pptx'],
  ['xl/', 'xlsx'],
];
const OPEN_DOCUMENT: Record<string, FileFormat> = {
  'application/epub+zip': 'epub',
  'application/vnd.oasis.opendocument.text': 'odt',
  'application/vnd.oasis.opendocument.text-template': 'odt',
  'application/vnd.oasis.opendocument.presentation': 'odp',
  'application/vnd.oasis.opendocument.presentation-template': 'odp',
  'application/vnd.oasis.opendocument.spreadsheet': 'ods',
  'application/vnd.oasis.opendocument.spreadsheet-template': 'ods',
};

/** EBU Tech 3306: a WAV file that may be larger than 4 GB. */
const RF64 = [0x52, 0x46, 0x36, 0x34];
/** What browsers do not play, or not all of them. */
const SOUNDS = new Set([
  'amr',
  'caf',
  'aif',
  'aiff',
  'ac3',
  'mid',
  'ape',
  'wv',
  'dsf',
  'voc',
  'mpc',
  'm4b',
  'f4a',
  'f4b',
]);
const FILMS = new Set([
  'mov',
  '3gp',
  '3g2',
  'avi',
  'asf',
  'flv',
  'mpg',
  'mkv',
  'mts',
  'ts',
  'ogv',
  'ogm',
  'f4v',
  'f4p',
]);
/** Of these containers the name tells whether there is a picture in them. */
const SOUND_ENDINGS = new Set([...SOUNDS, 'wma', 'mka', 'aac', 'mp3', 'm4a', 'wav', 'ra', 'mp2']);

/**
 * Whether a QuickTime film holds what an MP4 holds too and all browsers play: H.264, or sound alone (QuickTime File Format, “Video
 * sample description”; the codes stand in the table of samples).
 */
function isPlayable(bytes: Uint8Array): boolean {
  const all = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const at = all.lastIndexOf('moov');
  const head = at < 0 ? undefined : all.subarray(at);
  const has = (code: string): boolean => head?.includes(code) ?? false;
  return has('mp4a') ? has('avc1') || !has('vide') : has('avc1') && !has('soun');
}

const BY_SIGNATURE: Record<string, FileFormat> = {
  png: 'png',
  apng: 'png',
  jpg: 'jpeg',
  webp: 'webp',
  gif: 'gif',
  tif: 'tiff',
  wav: 'wav',
  mp3: 'mp3',
  ogg: 'ogg',
  oga: 'ogg',
  opus: 'ogg',
  webm: 'webm',
  mp4: 'mp4',
  m4a: 'mp4',
  m4v: 'mp4',
  flac: 'flac',
  aac: 'aac',
};

/** Which endings a format may have. A file whose ending belongs to another format is refused. */
const ENDINGS: Record<FileFormat, readonly string[]> = {
  docx: ['docx', 'docm', 'dotx', 'dotm'],
  odt: ['odt', 'ott'],
  pdf: ['pdf'],
  pptx: ['pptx', 'pptm', 'ppsx', 'potx', 'potm'],
  odp: ['odp', 'otp'],
  markdown: ['md', 'markdown'],
  text: ['txt', 'text'],
  html: ['html', 'htm'],
  epub: ['epub'],
  png: ['png'],
  jpeg: ['jpg', 'jpeg'],
  webp: ['webp'],
  gif: ['gif'],
  tiff: ['tiff', 'tif'],
  heic: ['heic', 'heif'],
  wav: ['wav', 'wave'],
  mp3: ['mp3'],
  ogg: ['ogg', 'oga', 'opus'],
  webm: ['webm', 'weba'],
  mp4: ['mp4', 'm4a', 'm4v', 'mov', 'qt'],
  flac: ['flac'],
  aac: ['aac'],
  csv: ['csv', 'tsv'],
  xlsx: ['xlsx', 'xlsm', 'xltx'],
  ods: ['ods', 'ots'],
};
const TEXTS: readonly FileFormat[] = ['text', 'markdown', 'html', 'csv'];

const endingOf = (fileName: string): string => path.extname(fileName).slice(1).toLowerCase();
const formatOfEnding = (ending: string): FileFormat | undefined =>
  (Object.keys(ENDINGS) as FileFormat[]).find((format) => ENDINGS[format].includes(ending));

export interface Detected {
  format: FileFormat;
  /** Its name says something else. */
  misnamed: boolean;
}

/**
 * What a file is, by its bytes. Only which kind of plain text it is, which no byte tells, is read from its name.
 * @throws DocumentError where it is nothing that can be read
 */
export async function detectFormat(bytes: Uint8Array, fileName: string, encoding?: Encoding): Promise<Detected> {
  if (bytes.length === 0) throw documentErrors.empty();
  const named = formatOfEnding(endingOf(fileName));
  const format = await formatOfBytes(bytes, named, endingOf(fileName));
  if (format) return { format, misnamed: named !== undefined && named !== format };
  if (decodeText(bytes, encoding) === undefined) throw named ? documentErrors.broken(named) : documentErrors.unknown();
  if (named && TEXTS.includes(named)) return { format: named, misnamed: false };
  if (named) throw documentErrors.otherText(fileName);
  // A program, data, a script, TeX: text is text, whatever its name ends with.
  return { format: 'text', misnamed: false };
}

const isMarkedText = (bytes: Uint8Array): boolean =>
  (startsWith(bytes, [0xff, 0xfe]) || startsWith(bytes, [0xfe, 0xff])) && decodeText(bytes) !== undefined;

async function formatOfBytes(
  bytes: Uint8Array,
  named: FileFormat | undefined,
  ending: string,
): Promise<FileFormat | undefined> {
  if (startsWith(bytes, COMPOUND_FILE))
    throw Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).includes(ENCRYPTED_PACKAGE)
      ? documentErrors.locked(named)
      : documentErrors.oldOffice();
  if (startsWith(bytes, ZIP)) return formatOfZip(bytes, named);
  const head = Buffer.from(bytes.subarray(0, 1024)).toString('latin1');
  if (head.includes('%PDF-')) return 'pdf';
  if (head.startsWith('{\\rtf')) throw documentErrors.richText();
  // The mark of UTF-16 looks like the beginning of an MPEG frame.
  const type = isMarkedText(bytes) ? undefined : await fileTypeFromBuffer(bytes);
  if (type?.mime === 'image/heic' || type?.mime === 'image/heif' || type?.ext === 'heic') return 'heic';
  if (startsWith(bytes, RF64)) return 'wav';
  if (type?.ext === 'mov' && isPlayable(bytes)) return 'mp4';
  if (type && (SOUNDS.has(type.ext) || (FILMS.has(type.ext) && SOUND_ENDINGS.has(ending))))
    throw documentErrors.sound();
  if (type && FILMS.has(type.ext)) throw documentErrors.film();
  if (type && BY_SIGNATURE[type.ext]) return BY_SIGNATURE[type.ext];
  if (type && type.mime.split('/')[0] !== 'text' && type.ext !== 'xml') throw documentErrors.unknown();
  if (/^\s*(?:<!--[^]*?-->\s*)?<(?:!doctype\s+html|html)[\s>]/i.test(decodeText(bytes.subarray(0, 4096))?.text ?? ''))
    return 'html';
  return undefined;
}

function formatOfZip(bytes: Uint8Array, named: FileFormat | undefined): FileFormat {
  const names = namesInZip(bytes);
  if (!names) throw named ? documentErrors.broken(named) : documentErrors.unknown();
  const office = PARTS.find(([part]) => names.some((name) => name.startsWith(part)));
  if (office) return office[1];
  const open = names.includes('mimetype') ? openPackage(bytes, named ?? 'odt') : undefined;
  const format = OPEN_DOCUMENT[open?.text('mimetype')?.trim() ?? ''];
  if (!format) throw unreadOpenDocument(open?.text('mimetype')?.trim() ?? '');
  if (/encryption-data/.test(open!.text('META-INF/manifest.xml') ?? '')) throw documentErrors.locked(format);
  return format;
}

function unreadOpenDocument(mediaType: string): DocumentError {
  if (!mediaType.startsWith('application/vnd.oasis.opendocument.')) return documentErrors.unknown();
  return documentErrors.otherOpenDocument();
}
