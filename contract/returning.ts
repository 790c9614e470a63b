import type { Finding as CoreFinding } from '#core/returning';
import { z } from 'zod';
import { WorkState } from './assignments.ts';
import { Id, Instant, Nothing } from './basics.ts';
import { endpoint } from './endpoint.ts';
import { Grade } from './grading.ts';
import { Feedback, Held } from './submissions.ts';

export const Finding = z.discriminatedUnion('type', [
  z.object({ type: z.literal('nothingSaid') }),
  z.object({ type: z.literal('noOverall') }),
  z.object({ type: z.literal('unscored'), titles: z.array(z.string()) }),
  z.object({ type: z.literal('unread'), remarks: z.array(Id) }),
  z.object({ type: z.literal('wordless'), remarks: z.array(Id) }),
  z.object({ type: z.literal('otherName'), remark: Id, name: z.string() }),
  z.object({ type: z.literal('few'), remarks: z.int(), usual: z.int() }),
]) satisfies z.ZodType<CoreFinding>;
export type Finding = z.infer<typeof Finding>;

/** A work on its way to its student. */
export const ReturnRow = z.object({
  submission: Id,
  student: z.string(),
  state: WorkState,
  remarks: z.int(),
  returnedAt: Instant.nullable(),
  returnAt: Instant.nullable(),
  held: Held.nullable(),
  /** As it would go out, or went. */
  grade: Grade.nullable(),
  findings: z.array(Finding),
});
export type ReturnRow = z.infer<typeof ReturnRow>;

/** How many go out at once. */
export const MAX_RETURNED = 500;
const Works = z.array(Id).min(1).max(MAX_RETURNED);

export const readReturning = endpoint({
  method: 'GET',
  path: '/assignments/:assignment/returning',
  answer: z.object({ title: z.string(), course: Id, rows: z.array(ReturnRow) }),
});
/** Each work goes out as a whole or not at all. Of what is returned already, what was held back goes out. */
export const returnWorks = endpoint({
  method: 'POST',
  path: '/assignments/:assignment/returned',
  body: z.object({ works: Works, held: Held.nullable() }),
  answer: z.object({ returned: z.array(Id) }),
});
/** They go out by themselves at that time; null: not any more. */
export const planReturn = endpoint({
  method: 'POST',
  path: '/assignments/:assignment/planned',
  body: z.object({ works: Works, at: Instant.nullable() }),
  answer: z.object({ planned: z.array(Id) }),
});
/** As if they had never gone out, within a minute; later ones stay where they are. */
export const takeBackWorks = endpoint({
  method: 'POST',
  path: '/assignments/:assignment/taken-back',
  body: z.object({ works: Works }),
  answer: z.object({ takenBack: z.array(Id) }),
});
export const setReady = endpoint({
  method: 'PUT',
  path: '/submissions/:submission/ready',
  body: z.object({ ready: z.boolean() }),
  answer: Nothing,
});
/** Exactly what the student would see, were it returned now. */
export const readAsStudent = endpoint({
  method: 'GET',
  path: '/submissions/:submission/as-student',
  answer: Feedback,
});
