import { z } from 'zod';

export const PARCEL_VERSION = 2;

/** A change on its way to the server. Parcels are sent one by one, in the order in which they were made. */
export const Parcel = z.object({
  key: z.number(),
  version: z.literal(PARCEL_VERSION),
  person: z.string(),
  /** Who knows how the change is sent; see `subjects.ts`. */
  subject: z.string(),
  /** What it is a change of, e.g. the id of a work. */
  about: z.string(),
  /** Ids of what is changed, so that each of them can say how far it is. */
  touches: z.array(z.string()),
  change: z.unknown(),
  /** Why the server will not have it; it stays until the person has seen that. */
  refused: z.string().optional(),
  /** What stands there now, where somebody else has changed the same thing meanwhile. */
  now: z.unknown().optional(),
});
export type Parcel = z.infer<typeof Parcel>;

/** The first version had no number, and knew changes of feedback only. */
const FirstParcel = z.object({ key: z.number(), person: z.string(), submission: z.string(), change: z.unknown() });

/** A parcel as it was kept, and the version in which its change was written; undefined where it is none at all. */
export function readParcel(kept: unknown): { parcel: Parcel; writtenIn: number } | undefined {
  const now = Parcel.safeParse(kept);
  if (now.success) return { parcel: now.data, writtenIn: PARCEL_VERSION };
  const first = FirstParcel.safeParse(kept);
  if (!first.success) return undefined;
  const { submission, ...rest } = first.data;
  const parcel = { ...rest, version: PARCEL_VERSION, subject: 'feedback', about: submission, touches: [] } as const;
  return { parcel: { ...parcel, touches: [] }, writtenIn: 1 };
}

/** Properties of changes that hold what somebody wrote, wherever they are. */
const WRITTEN = new Set(['text', 'name', 'suggestion', 'link', 'why', 'comment', 'words', 'answer']);

/** People are named there, too. */
const PEOPLE = new Set(['author', 'by', 'owner', 'student']);

/** What somebody wrote, wherever it is in a change, each once. */
export function wordsIn(change: unknown, key = ''): string[] {
  if (typeof change === 'string') return WRITTEN.has(key) && change.trim() !== '' ? [change] : [];
  if (typeof change !== 'object' || change === null || change instanceof Blob || PEOPLE.has(key)) return [];
  const found = Object.entries(change).flatMap(([name, value]) => wordsIn(value, Array.isArray(change) ? key : name));
  return [...new Set(found)];
}

/** Bytes that somebody spoke or chose, wherever they are in a change: they can be saved as a file in any case. */
export function blobsIn(change: unknown): Blob[] {
  if (change instanceof Blob) return [change];
  return typeof change === 'object' && change !== null ? Object.values(change).flatMap(blobsIn) : [];
}
