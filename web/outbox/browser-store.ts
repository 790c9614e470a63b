import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/**
 * The browser's own storage: what has been made here and is not on the server yet. What it holds may have been written by an
 * earlier version of the app, so it is read as unknown and parsed.
 */
interface Schema extends DBSchema {
  parcels: { key: number; value: unknown; indexes: { person: string } };
  takes: { key: string; value: unknown; indexes: { person: string } };
  chunks: { key: [string, number]; value: { take: string; position: number; blob: Blob } };
  /** What was done while a take was spoken. */
  notes: { key: [string, number]; value: { take: string; position: number; note: unknown } };
}

type Upgrade = Parameters<NonNullable<NonNullable<Parameters<typeof openDB<Schema>>[2]>['upgrade']>>;

/** What each version changed; a browser goes through those that it has not gone through yet. */
export const STEPS: ((db: Upgrade[0], tx: Upgrade[3]) => void)[] = [
  (db) => {
    db.createObjectStore('parcels', { keyPath: 'key', autoIncrement: true });
    db.createObjectStore('takes', { keyPath: 'id' });
    db.createObjectStore('chunks', { keyPath: ['take', 'position'] });
  },
  (_db, tx) => {
    tx.objectStore('parcels').createIndex('person', 'person');
    tx.objectStore('takes').createIndex('person', 'person');
  },
  (db) => void db.createObjectStore('notes', { keyPath: ['take', 'position'] }),
];

/** Goes through the steps that a browser has not gone through yet. */
export const upgrade = (db: Upgrade[0], from: number, tx: Upgrade[3]): void =>
  STEPS.slice(from).forEach((step) => step(db, tx));

const NAME = 'vivid-margin';

let opened: Promise<IDBPDatabase<Schema>> | undefined;

export const browserStore = (): Promise<IDBPDatabase<Schema>> =>
  (opened ??= openDB<Schema>(NAME, STEPS.length, {
    upgrade: (db, from, _to, tx) => upgrade(db, from, tx),
    // Another tab brings a newer version: it must not wait for this one.
    blocking: () => {
      void opened?.then((db) => db.close());
      opened = undefined;
    },
    terminated: () => (opened = undefined),
  }).catch((error: unknown) => {
    opened = undefined;
    throw error;
  }));
