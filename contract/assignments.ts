import type { Question as CoreQuestion } from '#core/folio';
import { z } from 'zod';
import { Hundredths, Id, Instant } from './basics.ts';
import { endpoint } from './endpoint.ts';
import { FileFormat } from './folio.ts';
import { Handout } from './handouts.ts';
import { Grade, Marking, Standing } from './grading.ts';
import { ReadNote } from './uploads.ts';

export const WorkState = z.enum(['waiting', 'back', 'begun', 'ready', 'returned']);

export const AssignmentSummary = z.object({
  id: Id,
  title: z.string(),
  course: z.string(),
  courseId: Id,
  dueAt: Instant.nullable(),
  /** Where it is the second marking of another one's works: which. */
  moderation: Id.nullable(),
});
export type AssignmentSummary = z.infer<typeof AssignmentSummary>;

export const Question = z.object({
  id: Id,
  kind: z.enum(['short', 'long', 'number', 'choice']),
  prompt: z.string(),
  choices: z.array(z.string()),
  points: Hundredths,
}) satisfies z.ZodType<CoreQuestion>;
export type Question = z.infer<typeof Question>;

export const NewQuestion = Question.extend({
  prompt: z.string().trim().min(1, 'Write the question').max(5_000),
  choices: z.array(z.string().trim().min(1).max(500)).max(30),
  points: Hundredths.min(0).max(1_000_00),
}).refine(({ kind, choices }) => kind !== 'choice' || choices.length > 1, 'Give at least two answers to choose from');

const MAX_ANSWER_LENGTH = 100_000;
export const Answers = z.record(Id, z.string().max(MAX_ANSWER_LENGTH));
export type Answers = z.infer<typeof Answers>;

/** One student in an assignment, as the teacher sees it. */
export const ClassRow = z.object({
  student: z.object({ id: Id, name: z.string() }),
  standing: Standing,
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
      /** Of these, those to be heard by the student. */
      spoken: z.int(),
      heard: z.int(),
      unanswered: z.int(),
      grade: Grade.nullable(),
    })
    .nullable(),
});
export type ClassRow = z.infer<typeof ClassRow>;

/** Seconds that a spoken remark should take; null where nobody counts. It never cuts. */
export const Budget = z.int().min(5).max(1800).nullable();

/** When it counts, how much, and what may be handed in. */
const Rules = z.object({
  /** One of its course's; null for none. */
  term: z.string().trim().max(60).nullable(),
  category: z.string().trim().max(60),
  /** Hundredths of a per cent of the result of the course. */
  weight: Hundredths.min(0).max(100_00).nullable(),
  /** Extra credit: adds to what is earned in the course, and nothing to what is possible. */
  extra: z.boolean(),
  /** How many versions may be handed in; null for as many as one likes. */
  attempts: z.int().min(1).max(100).nullable(),
  /** Null for all that can be read. */
  formats: z.array(FileFormat).min(1, 'Choose at least one format').nullable(),
});

export const AssignmentOverview = AssignmentSummary.extend({
  brief: z.string(),
  budget: Budget,
  open: z.boolean(),
  anonymous: z.boolean(),
  marking: Marking,
  ...Rules.shape,
  terms: z.array(z.string()),
  questions: z.array(Question),
  handouts: z.array(Handout),
  rows: z.array(ClassRow),
});
export type AssignmentOverview = z.infer<typeof AssignmentOverview>;

/** A student's own work in one assignment. */
export const OwnWork = z.object({
  assignment: AssignmentSummary.extend({
    brief: z.string(),
    /** Where there are any, the work is the answers to them; otherwise it is one or more files. */
    questions: z.array(Question),
    /** How many versions may still be handed in; null for as many as one likes. */
    attemptsLeft: z.int().min(0).nullable(),
    formats: z.array(FileFormat).nullable(),
    /** What this student has been given. */
    handouts: z.array(Handout),
    /** Its course is over. */
    aside: z.boolean(),
  }),
  versions: z.array(
    z.object({
      submission: Id,
      version: z.int(),
      files: z.array(z.string()),
      handedInAt: Instant,
      returnedAt: Instant.nullable(),
      /** It was returned before, and its teacher is working on it again. */
      corrected: z.boolean(),
      withdrawnAt: Instant.nullable(),
      /** Remarks to be heard, and how many of them were heard to the end; nothing while they are with the teacher. */
      spoken: z.int(),
      heard: z.int(),
      /** No teacher has opened it yet. */
      canWithdraw: z.boolean(),
    }),
  ),
  /** Where a teacher had the last word about one of its remarks, the latest first. */
  answers: z.array(
    z.object({
      submission: Id,
      remark: Id,
      author: z.string(),
      text: z.string(),
      spoken: z.boolean(),
      at: Instant,
    }),
  ),
});
export type OwnWork = z.infer<typeof OwnWork>;

export const readOwnWork = endpoint({ method: 'GET', path: '/own-work', answer: z.array(OwnWork) });
export const readAssignment = endpoint({
  method: 'GET',
  path: '/assignments/:assignment',
  answer: AssignmentOverview,
});
/** What a teacher sets; a title is enough, all else can be said later. */
export const AssignmentSettings = z.object({
  title: z.string().trim().min(1, 'Give the assignment a title').max(200),
  brief: z.string().trim().max(20_000),
  dueAt: Instant.nullable(),
  budget: Budget,
  /** Students see it. */
  open: z.boolean(),
  /** Teachers do not see whose a work is until it is returned. */
  anonymous: z.boolean(),
  marking: Marking,
  ...Rules.shape,
});
export type AssignmentSettings = z.infer<typeof AssignmentSettings>;
export const AssignmentChange = AssignmentSettings.partial();
export type AssignmentChange = z.infer<typeof AssignmentChange>;

export const makeAssignment = endpoint({
  method: 'POST',
  path: '/courses/:course/assignments',
  /** `from`: asks the same as another one. */
  body: z.object({ title: AssignmentSettings.shape.title, from: Id.optional() }),
  answer: z.object({ id: Id }),
});
export const setAssignment = endpoint({
  method: 'PATCH',
  path: '/assignments/:assignment',
  body: AssignmentChange,
  answer: AssignmentSettings,
});
/** A flag, or more time, for one student; a work need not be there. */
export const setStanding = endpoint({
  method: 'PUT',
  path: '/assignments/:assignment/students/:student',
  body: Standing,
  answer: Standing,
});
/** Replaces the questions, as long as nobody has handed in answers. */
export const setQuestions = endpoint({
  method: 'PUT',
  path: '/assignments/:assignment/questions',
  body: z.object({ questions: z.array(NewQuestion).max(100) }),
  answer: z.object({ questions: z.array(Question) }),
});
export const handIn = endpoint({
  method: 'POST',
  path: '/assignments/:assignment/submissions',
  upload: { files: 'some', largest: 'work' },
  answer: z.object({ submission: Id, notes: z.array(ReadNote) }),
});

export const Reading = z.object({ file: z.string(), read: z.number().int(), of: z.number().int() });
export type Reading = z.infer<typeof Reading>;
/** How many pages have been read of the file that this person is waiting for; `null` where nothing is being read, or nothing is known of it. */
export const readReading = endpoint({
  method: 'GET',
  path: '/reading',
  answer: z.object({ reading: Reading.nullable() }),
});
/** Puts a work in for a student: it was scanned, or came another way. */
export const handInFor = endpoint({
  method: 'POST',
  path: '/assignments/:assignment/works',
  body: z.object({ student: Id }),
  upload: { files: 'some', largest: 'work' },
  answer: z.object({ submission: Id, notes: z.array(ReadNote) }),
});

/** What the student has typed so far, here or on another machine. */
export const readAnswers = endpoint({
  method: 'GET',
  path: '/assignments/:assignment/answers',
  answer: z.object({ answers: Answers }),
});
export const keepAnswers = endpoint({
  method: 'PUT',
  path: '/assignments/:assignment/answers',
  body: z.object({ answers: Answers }),
  answer: z.object({ answers: Answers }),
});
export const handInAnswers = endpoint({
  method: 'POST',
  path: '/assignments/:assignment/answers/handed-in',
  body: z.object({ answers: Answers }),
  answer: z.object({ submission: Id }),
});
