import { z } from 'zod';
import { Id } from './basics.ts';
import { endpoint } from './endpoint.ts';

/**
 * Where large files come in so that they can go on where they broke off: the tus protocol 1.0.0 with creation, creation with
 * upload, and termination (https://tus.io/protocols/resumable-upload).
 */
export const resumableUploads = { uploadsAt: '/uploads', uploadAt: '/uploads/:upload' } as const;

/** What is larger than this is better sent so. */
export const RESUMABLE_BYTES = 256 * 1024;

/** A request that would bring its files along, where they have come in before it. */
export const WithUploads = z.object({
  body: z.unknown().optional(),
  uploads: z.array(z.object({ upload: Id, name: z.string().max(500) })).min(1),
});
export type WithUploads = z.infer<typeof WithUploads>;

/** How much a person has sent within a day, and may send, in bytes. */
export const UploadUse = z.object({
  sent: z.int(),
  most: z.int(),
  /** What is free where the school is kept, and what of it stays free; null where the server does not know. Teachers are told. */
  room: z.object({ free: z.int(), reserve: z.int() }).nullable(),
});

export type UploadUse = z.infer<typeof UploadUse>;

export const readUploadUse = endpoint({ method: 'GET', path: '/upload-use', answer: UploadUse });
