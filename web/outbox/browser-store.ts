import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { ref } from 'vue';

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

/** Where it is refused, as in some private windows, opening it may fail at once. */
const open: typeof openDB<Schema> = async (...how) => openDB<Schema>(...how);

export const browserStore = (): Promise<IDBPDatabase<Schema>> =>
  (opened ??= open(NAME, STEPS.length, {
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

/** The browser keeps nothing for us: it is full, or not allowed to. What is made lives in the page until the server has it. */
export const keepsNothing = ref(false);

/**
 * Does something with the storage, and notes whether that works.
 * @returns what it answered; `instead` where it does not work
 */
export async function kept<T>(job: (store: IDBPDatabase<Schema>) => Promise<T>, instead: T): Promise<T> {
  try {
    const answer = await job(await browserStore());
    keepsNothing.value = false;
    return answer;
  } catch {
    keepsNothing.value = true;
    return instead;
  }
}

/** Tries whether anything is kept, before somebody relies on it. */
export const tryStorage = (): Promise<boolean> =>
  kept(async (store) => {
    const probe = { take: '', position: -1, blob: new Blob(['probe']) };
    await store.put('chunks', probe);
    await store.delete('chunks', [probe.take, probe.position]);
    return true;
  }, false);
