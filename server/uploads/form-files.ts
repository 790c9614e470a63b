import type { Request } from 'express';
import type { StorageEngine } from 'multer';
import { randomUUID } from 'node:crypto';
import type { Queries } from '../db/database.ts';
import { deleteUpload, finishUpload, insertUpload, receive } from './queries.ts';
import { findUploaded, type UploadedFile } from './uploaded.ts';

/** What a file of a form has become. */
export interface FormFile {
  uploaded: UploadedFile;
}

/**
 * Brings the files of a form into the database while they come, instead of holding them. How long one is, is known at its end:
 * less than the form.
 * @param largest bytes that one may have
 */
export function formFiles(db: Queries, ownerOf: (request: Request) => string, largest: number): StorageEngine {
  async function take(request: Request, file: Express.Multer.File): Promise<FormFile> {
    const id = randomUUID();
    const form = Number(request.get('Content-Length')) || largest;
    await insertUpload(db, { id, owner: ownerOf(request), byteLength: Math.min(form, largest) });
    await finishUpload(db, id, await receive(db, id, 0, file.stream));
    return { uploaded: await findUploaded(db, { upload: id, name: file.originalname }) };
  }

  return {
    _handleFile: (request, file, done) => {
      take(request, file).then(
        (taken) => done(null, taken as FormFile & Partial<Express.Multer.File>),
        (error: unknown) => done(error as Error),
      );
    },
    _removeFile: (_request, file, done) => {
      const { uploaded } = file as Partial<FormFile>;
      if (!uploaded) return done(null);
      deleteUpload(db, uploaded.upload).then(() => done(null), done);
    },
  };
}
