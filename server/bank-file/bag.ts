import { createHash } from 'node:crypto';

/** RFC 8493: a bag in one file has one folder at its top. */
export const TOP = 'remark-bank/';

const DECLARATION = 'BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n';

export const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** Notes what goes into a bag, and writes the files that speak of it. */
export class BagWriter {
  readonly #payload = new Map<string, string>();
  #bytes = 0;

  add(name: string, bytes: Uint8Array): void {
    this.#payload.set(name, sha256(bytes));
    this.#bytes += bytes.length;
  }

  has(name: string): boolean {
    return this.#payload.has(name);
  }

  /** The tag files, by their names. */
  tagFiles(): Map<string, Uint8Array> {
    const files = new Map([
      ['bagit.txt', DECLARATION],
      ['bag-info.txt', `Source-Organization: Vivid Margin\nPayload-Oxum: ${this.#bytes}.${this.#payload.size}\n`],
      ['manifest-sha256.txt', manifest(this.#payload)],
    ]);
    const hashes = new Map([...files].map(([name, text]) => [name, sha256(Buffer.from(text))]));
    files.set('tagmanifest-sha256.txt', manifest(hashes));
    return new Map([...files].map(([name, text]) => [name, Buffer.from(text)]));
  }
}

/** Names with a percent sign or a line end in them would have to be written otherwise; ours have none (section 2.1.3). */
const manifest = (hashes: ReadonlyMap<string, string>): string =>
  [...hashes].map(([name, hash]) => `${hash}  ${name}\n`).join('');

/** What is wrong with a bag. */
export class BagError extends Error {}

/**
 * The payload of a bag, whole and unchanged (section 3).
 * @param files all that was in the zip, by name
 * @throws BagError with a sentence
 */
export function openBag(files: ReadonlyMap<string, Uint8Array>): Map<string, Uint8Array> {
  const odd = [...files.keys()].find((name) => /^\/|\\|(?:^|\/)\.\.?(?:\/|$)|^[A-Za-z]:/u.test(name));
  if (odd !== undefined) throw new BagError(`It names a file outside of itself (${odd}), so nothing of it was taken.`);
  const top = [...files.keys()].find((name) => name.endsWith('bagit.txt'))?.slice(0, -'bagit.txt'.length);
  const text = (name: string): string => Buffer.from(files.get(`${top}${name}`) ?? []).toString('utf8');
  if (top === undefined || !/^BagIt-Version: (?:1\.0|0\.97)\r?\n/u.test(text('bagit.txt')))
    throw new BagError('This zip file is no remark bank: it does not say that it is a bag (bagit.txt, RFC 8493).');
  const listed = new Map(readManifest(text('manifest-sha256.txt')));
  if (listed.size === 0) throw new BagError('Its list of files (manifest-sha256.txt) is missing or empty.');
  const payload = new Map<string, Uint8Array>();
  for (const [name, bytes] of files)
    if (name.startsWith(`${top}data/`) && !name.endsWith('/')) payload.set(name.slice(top.length), bytes);
  for (const [name, hash] of listed) {
    const bytes = payload.get(name);
    if (!bytes) throw new BagError(`The file ${name} is in its list, but not in it. It may have been cut short.`);
    if (sha256(bytes) !== hash)
      throw new BagError(`The file ${name} is not the one in its list: it was changed or damaged.`);
  }
  const more = [...payload.keys()].find((name) => !listed.has(name));
  if (more !== undefined) throw new BagError(`The file ${more} is in it, but not in its list.`);
  return payload;
}

function* readManifest(text: string): Generator<[name: string, hash: string]> {
  for (const line of text.split(/\r?\n|\r/u)) {
    const found = /^([0-9a-fA-F]{64})\s+(?:\*\s*)?(\S.*)$/u.exec(line);
    if (found) yield [found[2]!, found[1]!.toLowerCase()];
  }
}
