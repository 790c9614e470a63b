import { z } from 'zod';
import { Id, Nothing } from './basics.ts';
import { address, endpoint } from './endpoint.ts';
import { CellChange } from './gradebook.ts';

/** A course in the files of OneRoster 1.2, for other systems. */
export const oneRosterFile = address('/courses/:course/oneroster');

const MOST = 20_000;

/** What a OneRoster file brought in, so that it can be taken back. */
export const BroughtIn = z.object({
  people: z.array(Id).max(MOST),
  assignments: z.array(Id).max(MOST),
  /** As they were. */
  cells: z.array(CellChange.omit({ was: true })).max(MOST),
});
export type BroughtIn = z.infer<typeof BroughtIn>;

export const OneRosterReport = z.object({
  classes: z.array(z.object({ id: z.string(), title: z.string(), students: z.int() })),
  /** The one that is looked at: the one that was asked for, or is called like the course, or the first. */
  chosen: z.string(),
  /** Those who teach it are invited, not brought in. */
  teachers: z.int(),
  counts: z.object({ new: z.int(), changed: z.int(), unchanged: z.int(), refused: z.int() }),
  /** Of each fate not more than anybody reads. */
  lines: z.array(
    z.object({
      file: z.string(),
      line: z.int(),
      what: z.string(),
      from: z.string(),
      to: z.string(),
      fate: z.enum(['new', 'changed', 'unchanged', 'refused']),
      why: z.string().optional(),
    }),
  ),
  /** Null where nothing was done yet. */
  broughtIn: BroughtIn.nullable(),
});
export type OneRosterReport = z.infer<typeof OneRosterReport>;

export const readOneRosterFile = endpoint({
  method: 'POST',
  path: '/courses/:course/oneroster',
  body: z.object({ class: z.string().max(300).nullable(), bringIn: z.boolean() }),
  upload: { files: 'one', largest: 'picture' },
  answer: OneRosterReport,
});

/** All of it or nothing. Whoever has handed in something stays. */
export const takeBackOneRoster = endpoint({
  method: 'POST',
  path: '/courses/:course/oneroster/taken-back',
  body: BroughtIn,
  answer: Nothing,
});
