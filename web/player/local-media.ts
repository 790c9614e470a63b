import { shallowReactive } from 'vue';

/*
 * Bytes that were made in this page, by their SHA-256: they play from memory, before the server has them and for a while after.
 * An object URL keeps its bytes alive until it is revoked, and an evening of marking makes hundreds.
 */

interface Local {
  blob: Blob;
  url: string;
  /** The server has them, so they may go when room is needed. */
  spare: boolean;
}

/** Bytes that are held of what the server has already: some minutes of speech. */
const MOST_SPARE_BYTES = 12 * 1024 * 1024;

const local = shallowReactive(new Map<string, Local>());
let inUse: () => string = () => '';

/** @param url answers the address that is played at the moment: it is never taken away */
export const playsFrom = (url: () => string): void => void (inUse = url);

export function rememberBytes({ sha256, blob }: { sha256: string; blob: Blob }): void {
  if (!local.has(sha256)) local.set(sha256, { blob, url: URL.createObjectURL(blob), spare: false });
}

/** The server has these, or something else has taken their place. */
export function letGoOfBytes(sha256: string): void {
  const held = local.get(sha256);
  if (!held) return;
  // The newest of them stand last.
  local.delete(sha256);
  local.set(sha256, { ...held, spare: true });
  makeRoom();
}

function makeRoom(): void {
  const spare = [...local].filter(([, { spare }]) => spare);
  let bytes = spare.reduce((sum, [, { blob }]) => sum + blob.size, 0);
  for (const [sha256, { blob, url }] of spare) {
    if (bytes <= MOST_SPARE_BYTES) return;
    if (url === inUse()) continue;
    URL.revokeObjectURL(url);
    local.delete(sha256);
    bytes -= blob.size;
  }
}

export const localUrl = (sha256: string): string | undefined => local.get(sha256)?.url;
export const localBlob = (sha256: string): Blob | undefined => local.get(sha256)?.blob;
