import { Microphone, Picture } from '#contract/sound';
import { z } from 'zod';
import { browserStore } from '../outbox/browser-store.ts';
import { plain } from '../outbox/plain.ts';
import type { TakeKind } from './take-kind.ts';

const TAKE_VERSION = 2;

/** A recording that is under way, or was when the page went away. */
export const TakeRecord = z.object({
  id: z.string(),
  version: z.literal(TAKE_VERSION).default(TAKE_VERSION),
  person: z.string(),
  purpose: z.object({ type: z.string(), place: z.string(), about: z.unknown(), whole: z.boolean().optional() }),
  picture: Picture,
  mediaType: z.string(),
  microphone: Microphone,
  startedAt: z.string(),
});
export type TakeRecord = z.infer<typeof TakeRecord>;

/** The first version had no number; a purpose was of two sorts, and spread out. */
const FirstRecord = TakeRecord.omit({ version: true, picture: true, purpose: true }).extend({
  purpose: z.looseObject({ type: z.string(), submission: z.string(), picture: Picture.optional() }),
});

/** A take as it was kept, by this version of the app or the one before; undefined where it is none. */
export function readTake(kept: unknown): TakeRecord | undefined {
  const now = TakeRecord.safeParse(kept);
  if (now.success) return now.data;
  const first = FirstRecord.safeParse(kept);
  if (!first.success) return undefined;
  const { purpose, ...rest } = first.data;
  const { type, submission, picture = null, ...about } = purpose;
  return { ...rest, version: TAKE_VERSION, picture, purpose: { type, place: submission, about } };
}

/** While a page lives and records a take, it holds the lock of this name; the browser frees it with the page. */
const lockName = (id: string): string => `take ${id}`;
const releases = new Map<string, () => void>();

function hold(id: string): void {
  void navigator.locks.request(lockName(id), () => new Promise<void>((resolve) => releases.set(id, resolve)));
}

/** Keeps a take in the browser's storage, piece by piece. */
export interface TakeStore {
  save(chunk: Blob): Promise<void>;
  note(what: unknown): Promise<void>;
}

/**
 * Keeps each second of a take in the browser's storage as soon as it is there, and what is done meanwhile.
 * @throws where the storage is full or switched off; the take itself goes on in memory
 */
export async function beginTake(record: Omit<TakeRecord, 'version'>): Promise<TakeStore> {
  hold(record.id);
  const store = await browserStore();
  await store.put('takes', { ...plain(record), version: TAKE_VERSION });
  let [chunks, notes] = [0, 0];
  return {
    async save(blob) {
      await store.put('chunks', { take: record.id, position: chunks++, blob });
    },
    async note(what) {
      await store.put('notes', { take: record.id, position: notes++, note: plain(what) });
    },
  };
}

const piecesOf = (id: string): IDBKeyRange => IDBKeyRange.bound([id, 0], [id, Infinity]);

/** From now on the take counts as interrupted: it is offered at the next visit. */
export function letGoOfTake(id: string): void {
  releases.get(id)?.();
  releases.delete(id);
}

export async function forgetTake(id: string): Promise<void> {
  letGoOfTake(id);
  const store = await browserStore();
  const tx = store.transaction(['takes', 'chunks', 'notes'], 'readwrite');
  await Promise.all([
    tx.objectStore('takes').delete(id),
    tx.objectStore('chunks').delete(piecesOf(id)),
    tx.objectStore('notes').delete(piecesOf(id)),
    tx.done,
  ]);
}

export interface UnfinishedTake<About = unknown> extends TakeRecord {
  /** What it is about; undefined where that cannot be understood any more. Its sound can be saved all the same. */
  about: About | undefined;
  blob: Blob;
  /** About how long it is: the encoder hands over a piece each second. */
  seconds: number;
  /** What was done meanwhile, in the order in which it was told. */
  notes: unknown[];
}

/** Takes of a person, of one kind, in one place, that never came to their end: the page was closed or crashed meanwhile. */
export async function unfinishedTakes<About>(
  person: string,
  kind: TakeKind<About>,
  place: string,
): Promise<UnfinishedTake<About>[]> {
  const store = await browserStore();
  const alive = new Set((await navigator.locks.query()).held?.map(({ name }) => name));
  const records = (await store.getAllFromIndex('takes', 'person', person))
    .map(readTake)
    .filter((take) => take?.purpose.type === kind.type && take.purpose.place === place)
    .filter((take) => take !== undefined && !alive.has(lockName(take.id))) as TakeRecord[];
  const takes = await Promise.all(
    records.map(async (take) => {
      const chunks = await store.getAll('chunks', piecesOf(take.id));
      const blob = new Blob(
        chunks.map((chunk) => chunk.blob),
        { type: take.mediaType },
      );
      const notes = (await store.getAll('notes', piecesOf(take.id))).map(({ note }) => note);
      const about = kind.about.safeParse(take.purpose.about).data;
      return { ...take, about, seconds: chunks.length, blob, notes };
    }),
  );
  return takes.filter((take) => take.blob.size > 0);
}
