import { documentErrors, type ReadDocument } from './document.ts';
import { readDocx } from './docx.ts';

const startsWith = (bytes: Uint8Array, signature: number[]): boolean =>
  signature.every((byte, index) => bytes[index] === byte);

const ZIP = [0x50, 0x4b, 0x03, 0x04];
/** The container of .doc files and of encrypted .docx files: [MS-CFB] section 2.2. */
const COMPOUND_FILE = [0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1];

/**
 * Reads a document in this thread, choosing the reader by the bytes.
 * @throws DocumentError
 */
export const readDocument: ReadDocument = async (bytes, fileName) => {
  if (bytes.length === 0) throw documentErrors.empty();
  if (startsWith(bytes, COMPOUND_FILE)) throw documentErrors.oldWord();
  if (!startsWith(bytes, ZIP)) throw documentErrors.unknown();
  return readDocx(bytes, fileName);
};
