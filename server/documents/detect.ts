import { fileTypeFromBuffer } from 'file-type';
import path from 'node:path';
import { documentErrors, type FileFormat } from './document.ts';
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
  'application/vnd.oasis.opendocument.text': 'odt',
  'application/vnd.oasis.opendocument.text-template': 'odt',
  'application/vnd.oasis.opendocument.presentation': 'odp',
  'application/vnd.oasis.opendocument.presentation-template': 'odp',
};

const BY_SIGNATURE: Record<string, FileFormat> = {
  png: 'png',
  apng: 'png',
  jpg: 'jpeg',
  webp: 'webp',
  wav: 'wav',
  mp3: 'mp3',
  ogg: 'ogg',
  oga: 'ogg',
  opus: 'ogg',
  webm: 'webm',
  mp4: 'mp4',
  m4a: 'mp4',
  m4v: 'mp4',
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
  png: ['png'],
  jpeg: ['jpg', 'jpeg'],
  webp: ['webp'],
  wav: ['wav', 'wave'],
  mp3: ['mp3'],
  ogg: ['ogg', 'oga', 'opus'],
  webm: ['webm', 'weba'],
  mp4: ['mp4', 'm4a', 'm4v'],
  csv: ['csv', 'tsv'],
  xlsx: ['xlsx', 'xlsm', 'xltx'],
};
const TEXTS: readonly FileFormat[] = ['text', 'markdown', 'html', 'csv'];

const endingOf = (fileName: string): string => path.extname(fileName).slice(1).toLowerCase();
const formatOfEnding = (ending: string): FileFormat | undefined =>
  (Object.keys(ENDINGS) as FileFormat[]).find((format) => ENDINGS[format].includes(ending));

/**
 * What a file is, by its bytes. Only which kind of plain text it is, which no byte tells, is read from its name.
 * @throws DocumentError where it is nothing that can be read, or where its name says something else
 */
export async function detectFormat(bytes: Uint8Array, fileName: string): Promise<FileFormat> {
  if (bytes.length === 0) throw documentErrors.empty();
  const named = formatOfEnding(endingOf(fileName));
  const format = await formatOfBytes(bytes, named);
  if (format) {
    if (named && named !== format) throw documentErrors.otherType(fileName, format);
    return format;
  }
  if (decodeText(bytes) === undefined) throw named ? documentErrors.broken(named) : documentErrors.unknown();
  if (named && TEXTS.includes(named)) return named;
  if (named) throw documentErrors.otherText(fileName);
  if (endingOf(fileName) !== '') throw documentErrors.unknown();
  return 'text';
}

const isMarkedText = (bytes: Uint8Array): boolean =>
  (startsWith(bytes, [0xff, 0xfe]) || startsWith(bytes, [0xfe, 0xff])) && decodeText(bytes) !== undefined;

async function formatOfBytes(bytes: Uint8Array, named: FileFormat | undefined): Promise<FileFormat | undefined> {
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
  if (type?.mime === 'image/heic' || type?.mime === 'image/heif' || type?.ext === 'heic') throw documentErrors.heic();
  if (type && BY_SIGNATURE[type.ext]) return BY_SIGNATURE[type.ext];
  if (type && type.mime.split('/')[0] !== 'text' && type.ext !== 'xml') throw documentErrors.unknown();
  if (/^\s*(?:<!--[^]*?-->\s*)?<(?:!doctype\s+html|html)[\s>]/i.test(decodeText(bytes.subarray(0, 4096)) ?? ''))
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
  if (!format) throw documentErrors.unknown();
  if (/encryption-data/.test(open!.text('META-INF/manifest.xml') ?? '')) throw documentErrors.locked(format);
  return format;
}
