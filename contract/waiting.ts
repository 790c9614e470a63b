import { QUEUE_KINDS } from '#core/workflow';
import { z } from 'zod';
import { AssignmentSummary, WorkState } from './assignments.ts';
import { Id, Instant } from './basics.ts';
import { endpoint } from './endpoint.ts';
import { Standing } from './grading.ts';

/** What a teacher wants to see of their queue. */
export const QueueFilter = z.object({
  /** Null for all. */
  course: Id.nullable().default(null),
  kinds: z.array(z.enum(QUEUE_KINDS)).default([...QUEUE_KINDS]),
});

/** A work that waits to be marked, or a student's answer that waits for one. */
export const Waited = z.object({
  kind: z.enum(QUEUE_KINDS),
  submission: Id,
  student: z.string(),
  /** The title of the assignment. */
  assignment: z.string(),
  /** Since when it waits. */
  at: Instant,
  /** Null where it is an answer. */
  work: z
    .object({
      version: z.int(),
      late: z.boolean(),
      state: WorkState,
      standing: Standing,
      /** How many remarks on the version before their student says to have dealt with; null where there were none. */
      dealt: z.object({ done: z.int(), of: z.int() }).nullable(),
    })
    .nullable(),
  answer: z.object({ remark: Id, text: z.string(), spoken: z.boolean() }).nullable(),
});
export type Waited = z.infer<typeof Waited>;

export const Waiting = z.object({
  /** The oldest first, as many as were asked for. */
  items: z.array(Waited),
  /** How many there are that the filter shows, and how many it hides, by course and of the others by kind. */
  shown: z.int(),
  hiddenByCourse: z.int(),
  hiddenByKind: z.int(),
  assignments: z.array(
    AssignmentSummary.extend({ students: z.int(), handedIn: z.int(), ready: z.int(), returned: z.int() }),
  ),
});
export type Waiting = z.infer<typeof Waiting>;

/** What waits for a teacher. */
export const readWaiting = endpoint({
  method: 'POST',
  path: '/waiting',
  body: QueueFilter.extend({ most: z.int().min(1).max(1000).default(50) }),
  answer: Waiting,
});
/** What comes after a work in the queue, or first where it is not in it any more. */
export const readNextWaiting = endpoint({
  method: 'POST',
  path: '/waiting/next',
  body: QueueFilter.extend({ after: Id }),
  answer: z.object({ next: z.object({ submission: Id, remark: Id.nullable() }).nullable() }),
});
