import { analyse } from 'chardet';
import { Encoding } from '../../contract/uploads.ts';

const UTF8_MARK = [0xef, 0xbb, 0xbf];

/** Characters that no text holds: control characters but tab, line ends and form feed. */
// eslint-disable-next-line no-control-regex
const CONTROL = /[\u0000-\u0008\u000b\u000e-\u001a\u001c-\u001f]/gu;
/** A text may hold so many of them, or one among so many characters; they are left out. */
const FEW = { most: 4, among: 2000, share: 0.2 };

export interface Decoded {
  text: string;
  encoding: Encoding;
  /** Neither the file nor a person says so. */
  guessed: boolean;
}

export const guessedIn = ({ encoding, guessed }: Decoded): Encoding | undefined => (guessed ? encoding : undefined);

/**
 * The characters of a text file, with `\n` as line end: in the encoding that is given or declared, by a mark, as UTF-8 where
 * that is possible, or else as is likely.
 * @returns undefined where the bytes are no text
 */
export function decodeText(bytes: Uint8Array, given?: Encoding): Decoded | undefined {
  const found = given ? { encoding: given, guessed: false } : encodingOf(bytes);
  const text = found && decode(bytes, found.encoding);
  if (text === undefined) return undefined;
  const clean = text.replace(CONTROL, '');
  // Bytes that only might be pairs are no text where what they make is not.
  const strict = found!.guessed && found!.encoding.startsWith('utf-16');
  return isFew(text.length - clean.length, strict ? 0 : text.length)
    ? { ...found!, text: clean.replace(/\r\n?/g, '\n') }
    : undefined;
}

const isFew = (control: number, all: number): boolean =>
  control === 0 || (control <= Math.max(FEW.most, all / FEW.among) && control < FEW.share * all);

function encodingOf(bytes: Uint8Array): Omit<Decoded, 'text'> | undefined {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return { encoding: 'utf-16le', guessed: false };
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return { encoding: 'utf-16be', guessed: false };
  if (UTF8_MARK.every((byte, index) => bytes[index] === byte)) return { encoding: 'utf-8', guessed: false };
  const wide = wideOrder(bytes);
  if (wide) return { encoding: wide, guessed: true };
  const zeros = bytes.reduce((count, byte) => (byte === 0 ? count + 1 : count), 0);
  if (!isFew(zeros, bytes.length)) return undefined;
  if (decode(bytes, 'utf-8') !== undefined) return { encoding: 'utf-8', guessed: false };
  return { encoding: likely(bytes), guessed: true };
}

/** In most scripts every other byte of UTF-16 is the same: nothing for Latin letters, the number of the script for others. */
function wideOrder(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | undefined {
  const sample = bytes.subarray(0, 4096);
  if (sample.length < 4 || bytes.length % 2 !== 0 || !sample.includes(0)) return undefined;
  const zeros = (from: 0 | 1): number => sample.filter((byte, index) => index % 2 === from && byte === 0).length;
  const [even, odd] = [zeros(0), zeros(1)];
  if (odd > 4 * even) return 'utf-16le';
  return even > 4 * odd ? 'utf-16be' : undefined;
}

/** Windows has a superset of most encodings of ISO/IEC 8859, and files say so rarely (https://encoding.spec.whatwg.org/#names-and-labels). */
const IN_WINDOWS: Record<string, Encoding> = {
  'iso-8859-1': 'windows-1252',
  'iso-8859-6': 'windows-1256',
  'iso-8859-7': 'windows-1253',
  'iso-8859-8': 'windows-1255',
  'iso-8859-9': 'windows-1254',
};

/** Of a hundred. */
const SURE = 60;

function likely(bytes: Uint8Array): Encoding {
  for (const { name, confidence } of analyse(bytes.subarray(0, 65_536))) {
    // Rare, and easily taken for others in a short text.
    if (name.toLowerCase() === 'windows-1257' && confidence < SURE) continue;
    const known = Encoding.safeParse(IN_WINDOWS[name.toLowerCase()] ?? name.toLowerCase());
    if (known.success && known.data !== 'utf-8' && decode(bytes, known.data) !== undefined) return known.data;
  }
  return 'windows-1252';
}

/** The encoding that a label names, e.g. of a web page. */
export function encodingNamed(label: string): Encoding | undefined {
  try {
    return Encoding.safeParse(new TextDecoder(label).encoding).data;
  } catch {
    return undefined;
  }
}

function decode(bytes: Uint8Array, encoding: Encoding): string | undefined {
  if (encoding === 'windows-1252') return windows1252(bytes);
  try {
    return new TextDecoder(encoding, { fatal: true }).decode(bytes);
  } catch {
    return undefined;
  }
}

/** What bytes 0x80 to 0x9f mean (https://encoding.spec.whatwg.org/index-windows-1252.txt); Node 20 decodes them as Latin-1. */
const UPPER = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ';

const windows1252 = (bytes: Uint8Array): string =>
  Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength)
    .toString('latin1')
    .replace(/[\u0080-\u009f]/g, (character) => UPPER[character.charCodeAt(0) - 0x80]!);
