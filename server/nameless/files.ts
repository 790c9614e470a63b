import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { findMedium, readWholeMedium } from '../media/media.ts';
import { askedThread } from '../threads/asked-thread.ts';
import type { ToStrip } from './nameless-worker.ts';

/** Bytes of stripped files that are held, so that a page that asks for a file in pieces has it made once. */
const MOST_HELD = 64 * 1024 * 1024;

/** Files of works that are marked without names, without what they say about who made them. */
export interface NamelessFiles {
  /** @throws ProblemError where the file cannot be opened for that */
  read(sha256: Buffer, format: string): Promise<{ bytes: Uint8Array; mediaType: string }>;
}

export function namelessFiles(db: Queries): NamelessFiles {
  const thread = askedThread<ToStrip, 'cannot' | null>('nameless', {
    refused: () => problems.namesStay(),
    silent: () => problems.namesStay(),
  });
  const held = new Map<string, Promise<{ bytes: Uint8Array; mediaType: string }>>();
  const sizes = new Map<string, number>();

  function letGo(): void {
    let sum = [...sizes.values()].reduce((total, size) => total + size, 0);
    for (const [key, size] of sizes) {
      if (sum <= MOST_HELD) return;
      held.delete(key);
      sizes.delete(key);
      sum -= size;
    }
  }

  async function strip(sha256: Buffer, format: string): Promise<{ bytes: Uint8Array; mediaType: string }> {
    const medium = await findMedium(db, sha256);
    if (!medium) throw problems.notFound();
    const whole = await readWholeMedium(db, sha256, medium);
    // Browsers can't show HEIC, so a JPEG is sent instead.
    const mediaType = format === 'heic' ? 'image/jpeg' : medium.mediaType;
    return { bytes: await thread.ask<Uint8Array>({ bytes: whole, format }), mediaType };
  }

  return {
    read(sha256, format) {
      const key = `${sha256.toString('hex')} ${format}`;
      const found = held.get(key) ?? strip(sha256, format);
      held.set(key, found);
      found.then(
        ({ bytes }) => {
          sizes.set(key, bytes.length);
          letGo();
        },
        () => held.delete(key),
      );
      return found;
    },
  };
}
