import { z } from 'zod';
import { Id, Instant } from './basics.ts';
import { endpoint } from './endpoint.ts';
import { Grade } from './grading.ts';

export const WorkState = z.enum(['waiting', 'begun', 'returned']);

export const AssignmentSummary = z.object({
  id: Id,
  title: z.string(),
  course: z.string(),
  dueAt: Instant.nullable(),
});
export type AssignmentSummary = z.infer<typeof AssignmentSummary>;

/** One student in an assignment, as the teacher sees it. */
export const ClassRow = z.object({
  student: z.object({ id: Id, name: z.string() }),
  /** The newest version; null where nothing was handed in. */
  submission: z
    .object({
      id: Id,
      version: z.int(),
      handedInAt: Instant,
      late: z.boolean(),
      state: WorkState,
      returnedAt: Instant.nullable(),
      remarks: z.int(),
      heard: z.int(),
      unanswered: z.int(),
      grade: Grade.nullable(),
    })
    .nullable(),
});
export type ClassRow = z.infer<typeof ClassRow>;

export const AssignmentOverview = AssignmentSummary.extend({ brief: z.string(), rows: z.array(ClassRow) });
export type AssignmentOverview = z.infer<typeof AssignmentOverview>;

/** What waits for a teacher. */
export const Waiting = z.object({
  toMark: z.array(
    z.object({
      submission: Id,
      student: z.string(),
      version: z.int(),
      handedInAt: Instant,
      late: z.boolean(),
      state: WorkState,
      assignment: AssignmentSummary,
    }),
  ),
  /** Works in which a student had the last word. */
  unanswered: z.array(
    z.object({
      submission: Id,
      remark: Id,
      student: z.string(),
      text: z.string(),
      spoken: z.boolean(),
      at: Instant,
      assignment: AssignmentSummary,
    }),
  ),
  assignments: z.array(AssignmentSummary.extend({ students: z.int(), handedIn: z.int(), returned: z.int() })),
});
export type Waiting = z.infer<typeof Waiting>;

/** A student's own work in one assignment. */
export const OwnWork = z.object({
  assignment: AssignmentSummary.extend({ brief: z.string() }),
  versions: z.array(
    z.object({
      submission: Id,
      version: z.int(),
      fileName: z.string(),
      handedInAt: Instant,
      returnedAt: Instant.nullable(),
    }),
  ),
});
export type OwnWork = z.infer<typeof OwnWork>;

export const readWaiting = endpoint({ method: 'GET', path: '/waiting', answer: Waiting });
export const readOwnWork = endpoint({ method: 'GET', path: '/own-work', answer: z.array(OwnWork) });
export const readAssignment = endpoint({
  method: 'GET',
  path: '/assignments/:assignment',
  answer: AssignmentOverview,
});
export const handIn = endpoint({
  method: 'POST',
  path: '/assignments/:assignment/submissions',
  file: 'required',
  answer: z.object({ submission: Id }),
});
