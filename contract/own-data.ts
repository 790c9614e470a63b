import { z } from 'zod';
import { Id, Instant } from './basics.ts';
import { address, endpoint } from './endpoint.ts';

/** All that somebody has handed in, said and got back, as a zip file: a table of everything as JSON, files and sounds as they are. */
export const ownData = address('/own-data');
/** The same, for the school's steward. */
export const dataOfPerson = address('/school/people/:person/data');

/** What the school did with one person's data, and who did it; after an erasure nothing else is left of them. */
export const DataRecord = z.object({
  id: Id,
  what: z.enum(['exported', 'erased']),
  /** Who it was: a number that means nothing any more after an erasure. */
  person: Id,
  by: z.string(),
  at: Instant,
  works: z.int(),
  recordings: z.int(),
});
export type DataRecord = z.infer<typeof DataRecord>;

export const readDataRecords = endpoint({
  method: 'GET',
  path: '/school/data-records',
  answer: z.object({ records: z.array(DataRecord) }),
});
/** Erases a student completely. It cannot be taken back, so their name is to be typed. */
export const erasePerson = endpoint({
  method: 'POST',
  path: '/school/people/:person/erased',
  body: z.object({ name: z.string() }),
  answer: DataRecord,
});
