import { statfs } from 'node:fs/promises';
import path from 'node:path';

const MEGABYTE = 1_000_000;
/**
 * Bytes that stay free. PostgreSQL writes ahead into files of 16 MiB (“wal_segment_size”); an embedded one that cannot begin the
 * next of them never answers again.
 */
export const RESERVE = 20 * MEGABYTE;
/** What is written is written ahead, then into its table, and that in pieces. */
const TIMES = 3;
/** How often a disk that stays full is told of. */
const TELL_MILLISECONDS = 60_000;

/** There is too little room on the disk. Nothing was written. */
export class NoRoom extends Error {
  constructor(folder: string, free: number) {
    super(
      `There is too little room where the data are kept (${folder}): ${(free / MEGABYTE).toFixed(1)} MB are free, and ${RESERVE / MEGABYTE} MB have to stay free. Make room; nothing is lost.`,
    );
    this.name = 'NoRoom';
  }
}

/** Watches over the disk that a folder is on. */
export interface Room {
  /**
   * Call it before so many bytes are written.
   * @throws NoRoom
   */
  need(bytes: number): Promise<void>;
  /** Bytes that are free now. */
  free(): Promise<number>;
}

export function roomIn(folder: string, freeIn = freeBytes): Room {
  let told = -Infinity;
  return {
    free: () => freeIn(folder),
    async need(bytes) {
      const free = await freeIn(folder);
      if (free - TIMES * bytes >= RESERVE) return;
      const problem = new NoRoom(folder, free);
      if (performance.now() - told > TELL_MILLISECONDS) {
        told = performance.now();
        process.stderr.write(`${problem.message}\n`);
      }
      throw problem;
    },
  };
}

/** On the disk of a folder, or of the one that it will be made in. */
async function freeBytes(folder: string): Promise<number> {
  try {
    const { bavail, bsize } = await statfs(folder);
    return bavail * bsize;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
    return freeBytes(path.dirname(folder));
  }
}
