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

/** How the characters of a text file may be stored, by the names of https://encoding.spec.whatwg.org. */
export const Encoding = z.enum([
  ...['utf-8', 'utf-16le', 'utf-16be', 'windows-1252', 'windows-1250', 'iso-8859-2', 'windows-1251', 'koi8-r'],
  ...['windows-1253', 'windows-1254', 'windows-1255', 'windows-1256', 'windows-1257', 'shift_jis', 'euc-jp'],
  ...['gb18030', 'big5', 'euc-kr'],
] as const);
export type Encoding = z.infer<typeof Encoding>;

/** Something about how a file was read that its student should know. */
export const ReadNote = z.object({
  file: z.string(),
  note: z.string(),
  /** The encoding that was guessed, where another may be right. */
  encoding: Encoding.nullable(),
});
export type ReadNote = z.infer<typeof ReadNote>;

/** A request that would bring its files along, where they have come in before it. */
export const WithUploads = z.object({
  body: z.unknown().optional(),
  uploads: z
    .array(
      z.object({
        upload: Id,
        name: z.string().max(500),
        /** Where a person has said how a text is to be read. */
        encoding: Encoding.optional(),
      }),
    )
    .min(1),
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
