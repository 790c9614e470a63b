import { DataStore, ERRORS, Upload } from '@tus/server';
import type { Readable } from 'node:stream';
import type { Queries } from '../db/database.ts';
import { deleteUpload, finishUpload, insertUpload, receive, selectUpload } from './queries.ts';

/** The database as a store of the tus server. The routes say whose an upload is. */
export class TusStore extends DataStore {
  readonly #db: Queries;

  constructor(db: Queries) {
    super();
    this.#db = db;
    this.extensions = ['creation', 'creation-with-upload', 'termination'];
  }

  override async create(upload: Upload): Promise<Upload> {
    const byteLength = upload.size ?? 0;
    await insertUpload(this.#db, { id: upload.id, owner: upload.metadata!.owner!, byteLength });
    if (byteLength === 0) await finishUpload(this.#db, upload.id, 0);
    return upload;
  }

  override async write(stream: Readable, id: string, offset: number): Promise<number> {
    const { size } = await this.getUpload(id);
    const after = await receive(this.#db, id, offset, stream);
    if (after === size) await finishUpload(this.#db, id, after);
    return after;
  }

  override async getUpload(id: string): Promise<Upload> {
    const row = await selectUpload(this.#db, id);
    if (!row) throw ERRORS.FILE_NOT_FOUND;
    return new Upload({ id, size: row.byteLength, offset: row.received });
  }

  override remove(id: string): Promise<void> {
    return deleteUpload(this.#db, id);
  }
}
