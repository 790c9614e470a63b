import { z } from 'zod';
import { Anchor } from './anchor.ts';
import { AssignmentSummary, Budget, Question, WorkState } from './assignments.ts';
import { Hundredths, Id, Instant, Nothing } from './basics.ts';
import { address, endpoint } from './endpoint.ts';
import { Folio } from './folio.ts';
import { Grade, Rubric, Scale, Scores } from './grading.ts';
import { MarginKey } from './margin-key.ts';
import { Remark } from './remarks.ts';

/** One version of a student's work. Its folio goes out as it is stored. */
export const Work = z.object({
  id: Id,
  version: z.int(),
  /** All versions that were not withdrawn, the newest first. */
  versions: z.array(z.object({ id: Id, version: z.int(), handedInAt: Instant, returnedAt: Instant.nullable() })),
  student: z.object({ id: Id, name: z.string() }),
  /** In the order of the files of its folio. */
  files: z.array(z.object({ name: z.string(), mediaType: z.string() })),
  handedInAt: Instant,
  late: z.boolean(),
  assignment: AssignmentSummary,
  course: Id,
  marginKey: MarginKey,
  budget: Budget,
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
  questions: z.array(Question),
  points: z.record(Id, Hundredths),
  /** As it was returned; null while it is a draft. */
  grade: Grade.nullable(),
});
export type Feedback = z.infer<typeof Feedback>;

/** A remark on an earlier version, and where it belongs in this one. */
export const EarlierRemark = z.object({
  remark: Remark,
  submission: Id,
  version: z.int(),
  status: z.enum(['same', 'moved', 'changed', 'lost']),
  /** Null where it is lost. */
  anchor: Anchor.nullable(),
  confidence: z.number(),
  /** A teacher put it there by hand. */
  placed: z.boolean(),
});
export type EarlierRemark = z.infer<typeof EarlierRemark>;

/** The class of a work in the order of names, with how far each student's newest version is; nulls where there is none. */
export const ClassStates = z.object({
  students: z.array(
    z.object({ student: Id, name: z.string(), submission: Id.nullable(), state: WorkState.nullable() }),
  ),
});
export type ClassStates = z.infer<typeof ClassStates>;

export const readWork = endpoint({ method: 'GET', path: '/submissions/:submission', answer: Work });
export const readClass = endpoint({ method: 'GET', path: '/submissions/:submission/class', answer: ClassStates });
export const readFeedback = endpoint({ method: 'GET', path: '/submissions/:submission/feedback', answer: Feedback });
export const chooseLevel = endpoint({
  method: 'PUT',
  path: '/submissions/:submission/scores/:criterion',
  body: z.object({ level: Id.nullable() }),
  answer: z.object({ scores: Scores }),
});
export const givePoints = endpoint({
  method: 'PUT',
  path: '/submissions/:submission/points/:question',
  body: z.object({ points: Hundredths.min(0).nullable() }),
  answer: z.object({ points: z.record(Id, Hundredths) }),
});
/** Taken back by its student, or brought back again. */
export const withdrawWork = endpoint({
  method: 'PUT',
  path: '/submissions/:submission/withdrawn',
  body: z.object({ withdrawn: z.boolean() }),
  answer: Nothing,
});
export const readEarlier = endpoint({
  method: 'GET',
  path: '/submissions/:submission/earlier',
  answer: z.array(EarlierRemark),
});
/** A teacher says where a remark on an earlier version belongs, or that it belongs nowhere. */
export const placeEarlier = endpoint({
  method: 'PUT',
  path: '/submissions/:submission/earlier/:remark',
  body: z.object({ anchor: Anchor.nullable() }),
  answer: EarlierRemark,
});
export const returnWork = endpoint({
  method: 'PUT',
  path: '/submissions/:submission/returned',
  body: z.object({ returned: z.boolean() }),
  answer: Feedback,
});

export const workFile = address('/submissions/:submission/files/:position');
export const workPicture = address('/submissions/:submission/pictures/:position');
