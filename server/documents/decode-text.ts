const UTF8_MARK = [0xef, 0xbb, 0xbf];

/** Characters that no text holds: control characters but tab, line ends and form feed. */
// eslint-disable-next-line no-control-regex
const CONTROL = /[\u0000-\u0008\u000b\u000e-\u001a\u001c-\u001f]/;

/**
 * The characters of a text file: UTF-8 or UTF-16 by its mark, UTF-8 without one, else Windows-1252, with `\n` as line end.
 * @returns undefined where the bytes are no text
 */
export function decodeText(bytes: Uint8Array): string | undefined {
  const text = decode(bytes);
  return text === undefined || CONTROL.test(text) ? undefined : text.replace(/\r\n?/g, '\n');
}

function decode(bytes: Uint8Array): string | undefined {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes.subarray(2));
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder('utf-16be').decode(bytes.subarray(2));
  const marked = UTF8_MARK.every((byte, index) => bytes[index] === byte);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes.subarray(marked ? 3 : 0));
  } catch {
    return marked || bytes.includes(0) ? undefined : windows1252(bytes);
  }
}

/** What bytes 0x80 to 0x9f mean (https://encoding.spec.whatwg.org/index-windows-1252.txt); Node 20 decodes them as Latin-1. */
const UPPER = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ';

const windows1252 = (bytes: Uint8Array): string =>
  Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength)
    .toString('latin1')
    .replace(/[\u0080-\u009f]/g, (character) => UPPER[character.charCodeAt(0) - 0x80]!);
