import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Parcel } from './outbox.ts';
import type { TakeRecord } from '../recorder/takes.ts';

/** The browser's own storage: what has been made here and is not on the server yet. */
interface Schema extends DBSchema {
  parcels: { key: number; value: Parcel };
  takes: { key: string; value: TakeRecord };
  chunks: { key: [string, number]; value: { take: string; position: number; blob: Blob } };
}

let opened: Promise<IDBPDatabase<Schema>> | undefined;

export const browserStore = (): Promise<IDBPDatabase<Schema>> =>
  (opened ??= openDB<Schema>('vivid-margin', 1, {
    upgrade(db) {
      db.createObjectStore('parcels', { keyPath: 'key', autoIncrement: true });
      db.createObjectStore('takes', { keyPath: 'id' });
      db.createObjectStore('chunks', { keyPath: ['take', 'position'] });
    },
  }));
