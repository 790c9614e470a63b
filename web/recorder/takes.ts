import type { Anchor } from '#core/anchor';
import type { Microphone, Sound } from '#contract/sound';
import { browserStore } from '../outbox/browser-store.ts';

type Picture = Sound['picture'];

/** What a take is for, so that it can be kept even if the page is gone before it ends. */
export type TakePurpose =
  | { type: 'remark'; submission: string; anchor: Anchor; kind: string; picture?: Picture; instead?: string }
  | { type: 'reply'; submission: string; remark: string };

/** A recording that is under way, or was when the page went away. */
export interface TakeRecord {
  id: string;
  person: string;
  purpose: TakePurpose;
  mediaType: string;
  microphone: Microphone;
  startedAt: string;
}

/** While a page lives and records a take, it holds the lock of this name; the browser frees it with the page. */
const lockName = (id: string): string => `take ${id}`;
const releases = new Map<string, () => void>();

function hold(id: string): void {
  void navigator.locks.request(lockName(id), () => new Promise<void>((resolve) => releases.set(id, resolve)));
}

/**
 * Keeps each second of a take in the browser's storage as soon as it is there.
 * @throws where the storage is full or switched off; the take itself goes on in memory
 */
export async function beginTake(record: TakeRecord): Promise<(chunk: Blob) => Promise<void>> {
  hold(record.id);
  const store = await browserStore();
  await store.put('takes', record);
  let position = 0;
  return async (blob) => {
    await store.put('chunks', { take: record.id, position: position++, blob });
  };
}

const chunksOf = (id: string): IDBKeyRange => IDBKeyRange.bound([id, 0], [id, Infinity]);

/** From now on the take counts as interrupted: it is offered at the next visit. */
export function letGoOfTake(id: string): void {
  releases.get(id)?.();
  releases.delete(id);
}

export async function forgetTake(id: string): Promise<void> {
  letGoOfTake(id);
  const store = await browserStore();
  const tx = store.transaction(['takes', 'chunks'], 'readwrite');
  await Promise.all([tx.objectStore('takes').delete(id), tx.objectStore('chunks').delete(chunksOf(id)), tx.done]);
}

export interface UnfinishedTake extends TakeRecord {
  blob: Blob;
  /** About how long it is: the encoder hands over a piece each second. */
  seconds: number;
}

/** Takes of a person in a work that never came to their end: the page was closed or crashed while they were speaking. */
export async function unfinishedTakes(person: string, submission: string): Promise<UnfinishedTake[]> {
  const store = await browserStore();
  const alive = new Set((await navigator.locks.query()).held?.map(({ name }) => name));
  const records = (await store.getAll('takes')).filter(
    (take) => take.person === person && take.purpose.submission === submission && !alive.has(lockName(take.id)),
  );
  const takes = await Promise.all(
    records.map(async (take) => {
      const chunks = await store.getAll('chunks', chunksOf(take.id));
      const blob = new Blob(
        chunks.map((chunk) => chunk.blob),
        { type: take.mediaType },
      );
      return { ...take, seconds: chunks.length, blob };
    }),
  );
  return takes.filter((take) => take.blob.size > 0);
}
