import type { Response } from 'express';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';

/** Streams a file while it is made; who goes away in between ends it. */
export async function saveAs(
  response: Response,
  name: string,
  type: string,
  parts: AsyncIterable<Uint8Array | string>,
): Promise<void> {
  response.attachment(name);
  response.set({ 'Content-Type': type, 'Cache-Control': 'no-store' });
  await pipeline(Readable.from(parts), response).catch((error: NodeJS.ErrnoException) => {
    if (error.code !== 'ERR_STREAM_PREMATURE_CLOSE') throw error;
  });
}
