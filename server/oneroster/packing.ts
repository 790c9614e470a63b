import { readOneRoster, writeOneRoster, type Incoming, type Outgoing } from '#core/oneroster';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { decodeText } from '../documents/decode-text.ts';

const MOST_UNPACKED = 64 * 1024 * 1024;

/** What is in a package, or why nothing of it can be taken. */
export function unpackOneRoster(bytes: Uint8Array): Incoming {
  let unpacked = 0;
  let parts: Record<string, Uint8Array>;
  try {
    parts = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!name.endsWith('.csv')) return false;
        unpacked += originalSize;
        return unpacked <= MOST_UNPACKED;
      },
    });
  } catch {
    return { problem: 'This is no .zip file that can be read. Choose the whole file of a OneRoster export.' };
  }
  if (unpacked > MOST_UNPACKED) return { problem: 'This file unpacks to more than a course can be. Nothing was read.' };
  const files = new Map<string, string>();
  for (const [name, part] of Object.entries(parts)) {
    // Some systems put everything into one folder.
    const decoded = decodeText(part);
    if (!decoded) return { problem: `${name} is no text.` };
    files.set(name.slice(name.lastIndexOf('/') + 1), decoded.text);
  }
  return readOneRoster(files);
}

export const packOneRoster = (out: Outgoing): Uint8Array =>
  zipSync(Object.fromEntries([...writeOneRoster(out)].map(([name, text]) => [name, strToU8(text)])));
