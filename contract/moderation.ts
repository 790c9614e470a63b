import type { Sampled } from '#core/moderation';
import { z } from 'zod';
import { Hundredths, Id, Instant, Nothing, Person } from './basics.ts';
import { endpoint } from './endpoint.ts';
import { Rubric, Scores } from './grading.ts';

export const Reason = z.enum(['random', 'border', 'highest', 'lowest']) satisfies z.ZodType<Sampled['reason']>;

const MOST_WORKS = 100;
const Count = z.int().min(0).max(MOST_WORKS);

/** A second marking, as far as it can be told before it is handed over. */
export const ModerationHead = z.object({
  id: Id,
  marker: z.string(),
  startedBy: z.string(),
  startedAt: Instant,
  /** What the sample was drawn with; empty where nobody kept it. */
  seed: z.string(),
  finishedAt: Instant.nullable(),
  works: z.int(),
  /** Works in which nothing is left to score. */
  scored: z.int(),
  /** Works that were settled. */
  settled: z.int(),
});
export type ModerationHead = z.infer<typeof ModerationHead>;

export const readModerations = endpoint({
  method: 'GET',
  path: '/assignments/:assignment/moderations',
  answer: z.object({
    title: z.string(),
    course: Id,
    /** Who could be asked. */
    markers: z.array(Person.pick({ id: true, name: true })),
    /** How many works are scored completely. */
    pool: z.int(),
    /** There are grades, and so borders between them. */
    borders: z.boolean(),
    moderations: z.array(ModerationHead),
  }),
});

const SampledWork = z.object({ work: Id, reason: Reason });
/** Letters and digits; the same one draws the same works. */
const Seed = z.string().regex(/^[0-9a-z]{0,32}$/);

/** Chooses works, by chance or once more by a seed; nothing is kept. */
export const drawSample = endpoint({
  method: 'POST',
  path: '/assignments/:assignment/sample',
  body: z.object({ marker: Id, random: Count, borders: Count, extremes: Count, seed: Seed.optional() }),
  answer: z.object({
    seed: Seed,
    works: z.array(SampledWork.extend({ student: z.string(), percentage: Hundredths })),
  }),
});
export type SampledWorks = z.infer<typeof drawSample.answer>['works'];

export const startModeration = endpoint({
  method: 'POST',
  path: '/assignments/:assignment/moderations',
  body: z.object({ marker: Id, works: z.array(SampledWork).min(1).max(MOST_WORKS), seed: Seed.default('') }),
  answer: z.object({ id: Id }),
});

/**
 * Why a work doesn't have the levels that were settled: it has been returned with others, a total is set instead of them, they were
 * changed since, or there is a new version or rubric, to which they don't belong.
 */
export const Unapplied = z.enum(['returned', 'total', 'levels', 'replaced']);
export type Unapplied = z.infer<typeof Unapplied>;

/** Both as they were when the second was handed over, by the criteria and levels of the assignment. */
export const ComparedWork = z.object({
  work: Id,
  second: Id,
  student: z.string(),
  reason: Reason,
  firstMarkers: z.array(z.string()),
  first: Scores,
  secondScores: Scores,
  /** It has been given back; its scores stay until it is taken back. */
  returned: z.boolean(),
  settled: z.object({ scores: Scores, by: z.string().nullable(), at: Instant, why: z.string() }).nullable(),
  /** Null where nothing was settled, or the work has what was. */
  unapplied: Unapplied.nullable(),
});
export type ComparedWork = z.infer<typeof ComparedWork>;

export const Moderation = ModerationHead.extend({
  assignment: z.object({ id: Id, title: z.string() }),
  course: Id,
  /** Whoever asks is the second marker and has not handed it over. */
  mine: z.boolean(),
  /** Where the second marker works; null for everybody else. */
  desk: z.object({ assignment: Id, first: Id }).nullable(),
  rubric: Rubric,
  /** Nothing before it is handed over. */
  compared: z.array(ComparedWork),
});
export type Moderation = z.infer<typeof Moderation>;

export const readModeration = endpoint({ method: 'GET', path: '/moderations/:moderation', answer: Moderation });

export const finishModeration = endpoint({
  method: 'POST',
  path: '/moderations/:moderation/finish',
  answer: Nothing,
});

export const callOffModeration = endpoint({ method: 'DELETE', path: '/moderations/:moderation', answer: Nothing });

/** What both agreed on, and why. It becomes what the work is given where it is a draft still. */
export const settleWork = endpoint({
  method: 'PUT',
  path: '/moderations/:moderation/works/:work',
  body: z.object({ scores: Scores, why: z.string().trim().min(1).max(1000) }),
  answer: z.object({ unapplied: Unapplied.nullable() }),
});

/** Gives the work what was settled: it is taken back where it has been returned, and a total that is set instead goes. */
export const applySettled = endpoint({
  method: 'POST',
  path: '/moderations/:moderation/works/:work/applied',
  answer: Nothing,
});
