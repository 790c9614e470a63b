import { z } from 'zod';
import { Anchor } from './anchor.ts';
import { AssignmentSummary, Budget, Question, WorkState } from './assignments.ts';
import { Hundredths, Id, Instant, Nothing, Sha256 } from './basics.ts';
import { address, endpoint } from './endpoint.ts';
import { Folio } from './folio.ts';
import { Adjustment, Grade, Marking, Rubric, Scale, Score, Scores, Standing } from './grading.ts';
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
  /** Its student is called something else until it is returned. */
  nameless: z.boolean(),
  assignment: AssignmentSummary,
  course: Id,
  marginKey: MarginKey,
  budget: Budget,
  folio: Folio,
});
export type Work = z.infer<typeof Work>;

/** What of a returned work its student does not see yet. */
export const Held = z.enum(['remarks', 'grade']);

/** How far a draft is on its way to its student. */
const Passage = z.object({
  readyAt: Instant.nullable(),
  /** When it goes out by itself. */
  returnAt: Instant.nullable(),
  held: Held.nullable(),
});

export const ReturnChange = z.object({
  /** Remarks. */
  added: z.array(Id),
  changed: z.array(Id),
  gone: z.int(),
  /** Criteria and questions. */
  scores: z.array(Id),
  /** The result before, where it is another now. */
  grade: Grade.nullable(),
});
export type ReturnChange = z.infer<typeof ReturnChange>;

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
  marking: Marking,
  minutesLate: z.int().min(0),
  standing: Standing,
  adjustment: Adjustment.nullable(),
  /** As it was returned; null while it is a draft. */
  grade: Grade.nullable(),
  ...Passage.shape,
  /** Each time that it went out, the first one first. */
  returns: z.array(Instant),
  /** What the newest return changed of the one before it. */
  changed: ReturnChange.nullable(),
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
/** What a student has in hand to show that, and when, they handed something in. */
export const Receipt = z.object({
  submission: Id,
  student: z.string(),
  course: z.string(),
  assignment: z.string(),
  version: z.int(),
  handedInAt: Instant,
  /** When it should have come; null for whenever one likes. */
  dueAt: Instant.nullable(),
  late: z.boolean(),
  /** None where answers were typed. */
  files: z.array(z.object({ name: z.string(), byteLength: z.int(), sha256: Sha256 })),
});
export type Receipt = z.infer<typeof Receipt>;
export const readReceipt = endpoint({
  method: 'GET',
  path: '/submissions/:submission/receipt',
  answer: Receipt,
});
export const readClass = endpoint({ method: 'GET', path: '/submissions/:submission/class', answer: ClassStates });
export const readFeedback = endpoint({ method: 'GET', path: '/submissions/:submission/feedback', answer: Feedback });
/** `was`: what the person saw there before; where something else stands there by now, nothing is changed. */
export const giveScore = endpoint({
  method: 'PUT',
  path: '/submissions/:submission/scores/:criterion',
  body: z.object({ score: Score.nullable(), was: Score.nullable().optional() }),
  answer: z.object({ scores: Scores }),
});
export const givePoints = endpoint({
  method: 'PUT',
  path: '/submissions/:submission/points/:question',
  body: z.object({ points: Hundredths.min(0).nullable(), was: Hundredths.nullable().optional() }),
  answer: z.object({ points: z.record(Id, Hundredths) }),
});
/** Extra credit, or another total with its reason. */
export const adjustResult = endpoint({
  method: 'PUT',
  path: '/submissions/:submission/adjustment',
  body: z.object({ adjustment: Adjustment.nullable(), was: Adjustment.nullable().optional() }),
  answer: z.object({ adjustment: Adjustment.nullable() }),
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
/** A file of the work with all that was said about it as annotations; today of PDF files and pictures. */
export const markedFile = address('/submissions/:submission/files/:position/marked');
export const workPicture = address('/submissions/:submission/pictures/:position');
