import type { Request, Response } from 'express';
import { pipeline } from 'node:stream/promises';
import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { findMedium, readMedium } from './media.ts';

/** Answers with a medium. */
export async function sendMedium(
  db: Queries,
  sha256: Buffer,
  request: Request,
  response: Response,
  { immutable = true }: { immutable?: boolean } = {},
): Promise<void> {
  const medium = await findMedium(db, sha256);
  if (!medium) throw problems.notFound();
  await sendRange(request, response, {
    ...{ ...medium, immutable, tag: sha256.toString('hex') },
    read: (start, end) => readMedium(db, sha256, start, end),
  });
}

interface Sendable {
  byteLength: number;
  mediaType: string;
  immutable: boolean;
  /** Another one for other bytes. */
  tag: string;
  read(start: number, end: number): AsyncIterable<Uint8Array> | Iterable<Uint8Array>;
}

/** Answers with bytes, or the single range of them that is asked for (RFC 9110, section 14). */
export async function sendRange(
  request: Request,
  response: Response,
  { byteLength, mediaType, immutable, tag, read }: Sendable,
): Promise<void> {
  const etag = `"${tag}"`;
  response.set({
    'Accept-Ranges': 'bytes',
    'Cache-Control': immutable ? 'private, max-age=31536000, immutable' : 'private, no-cache',
    'X-Content-Type-Options': 'nosniff',
    'Content-Type': mediaType,
    'Content-Security-Policy': "default-src 'none'; sandbox",
    ETag: etag,
  });
  if (request.fresh) return void response.status(304).end();

  const stale = request.get('If-Range') !== undefined && request.get('If-Range') !== etag;
  const ranges = stale ? undefined : request.range(byteLength);
  if (ranges === -1) return void response.status(416).set('Content-Range', `bytes */${byteLength}`).end();

  const range = Array.isArray(ranges) && ranges.type === 'bytes' && ranges.length === 1 ? ranges[0] : undefined;
  const { start, end } = range ?? { start: 0, end: byteLength - 1 };
  response.set('Content-Length', String(end - start + 1));
  if (range) response.status(206).set('Content-Range', `bytes ${start}-${end}/${byteLength}`);
  await pipeline(read(start, end), response).catch(ignoreHangUp);
}

function ignoreHangUp(error: NodeJS.ErrnoException): void {
  if (error.code !== 'ERR_STREAM_PREMATURE_CLOSE') throw error;
}
