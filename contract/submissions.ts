import { z } from 'zod';
import { AssignmentSummary } from './assignments.ts';
import { Id, Instant } from './basics.ts';
import { endpoint } from './endpoint.ts';
import { Folio } from './folio.ts';
import { Grade, Rubric, Scale, Scores } from './grading.ts';
import { Remark } from './remarks.ts';

/** One version of a student's work. */
export const Work = z.object({
  id: Id,
  version: z.int(),
  newestVersion: z.int(),
  student: z.object({ id: Id, name: z.string() }),
  fileName: z.string(),
  handedInAt: Instant,
  late: z.boolean(),
  assignment: AssignmentSummary,
  folio: Folio,
});
export type Work = z.infer<typeof Work>;

/** What was said about a work. A student is answered only after its return. */
export const Feedback = z.object({
  returnedAt: Instant.nullable(),
  remarks: z.array(Remark),
  /** Remarks that can still be brought back; always empty for the student. */
  aside: z.array(Remark),
  rubric: Rubric,
  scale: Scale,
  scores: Scores,
  /** As it was returned; null while it is a draft. */
  grade: Grade.nullable(),
});
export type Feedback = z.infer<typeof Feedback>;

/** The place of a work among those of its class that were handed in. */
export const Place = z.object({
  position: z.int(),
  count: z.int(),
  previous: Id.nullable(),
  next: Id.nullable(),
});
export type Place = z.infer<typeof Place>;

export const readWork = endpoint({ method: 'GET', path: '/submissions/:submission', answer: Work });
export const readPlace = endpoint({ method: 'GET', path: '/submissions/:submission/place', answer: Place });
export const readFeedback = endpoint({ method: 'GET', path: '/submissions/:submission/feedback', answer: Feedback });
export const chooseLevel = endpoint({
  method: 'PUT',
  path: '/submissions/:submission/scores/:criterion',
  body: z.object({ level: Id.nullable() }),
  answer: z.object({ scores: Scores }),
});
export const returnWork = endpoint({
  method: 'PUT',
  path: '/submissions/:submission/returned',
  body: z.object({ returned: z.boolean() }),
  answer: Feedback,
});

export const picturePath = (submission: string, picture: number): string =>
  `/api/submissions/${submission}/pictures/${picture}`;
