import { strFromU8, unzipSync } from 'fflate';
import { documentErrors, type FileFormat } from './document.ts';

/** What a document may unpack to; declared sizes are checked before anything is unpacked, and nothing unpacks to more. */
const MAX_UNPACKED_BYTES = 300 * 1024 * 1024;
const MAX_ENTRIES = 20_000;
/** Office documents are packed to a tenth or so; what unpacks to far more than that was made to fill a memory. */
const MOST_PACKED = 100;
const ALWAYS_UNPACKED_BYTES = 40 * 1024 * 1024;

/** The names in a zip file, or undefined where it is none. */
export function namesInZip(bytes: Uint8Array): string[] | undefined {
  const names: string[] = [];
  try {
    unzipSync(bytes, {
      filter: ({ name }) => {
        names.push(name);
        return false;
      },
    });
    return names;
  } catch {
    return undefined;
  }
}

/** A zip file whose parts are unpacked when they are wanted. */
export interface Package {
  names: string[];
  bytes(name: string): Uint8Array | undefined;
  text(name: string): string | undefined;
}

/**
 * Opens an office document.
 * @throws DocumentError
 */
export function openPackage(bytes: Uint8Array, format: FileFormat): Package {
  const names: string[] = [];
  let unpacked = 0;
  unzip(bytes, format, ({ name, originalSize }) => {
    names.push(name);
    unpacked += originalSize;
    return false;
  });
  const most = Math.min(MAX_UNPACKED_BYTES, Math.max(ALWAYS_UNPACKED_BYTES, bytes.length * MOST_PACKED));
  if (unpacked > most || names.length > MAX_ENTRIES) throw documentErrors.tooLarge();
  const parts = new Map<string, Uint8Array | undefined>();
  const part = (name: string): Uint8Array | undefined => {
    if (!parts.has(name)) parts.set(name, unzip(bytes, format, (entry) => entry.name === name)[name]);
    return parts.get(name);
  };
  return {
    names,
    bytes: part,
    text: (name) => {
      const found = part(name);
      return found && strFromU8(found).replace(/^\ufeff/, '');
    },
  };
}

function unzip(
  bytes: Uint8Array,
  format: FileFormat,
  filter: (entry: { name: string; originalSize: number }) => boolean,
): Record<string, Uint8Array> {
  try {
    return unzipSync(bytes, { filter });
  } catch {
    throw documentErrors.broken(format);
  }
}
