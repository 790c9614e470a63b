import type { PlainCriterion } from '#core/rubric-table';
import { z } from 'zod';
import { Hundredths, Id, Instant } from './basics.ts';
import { endpoint } from './endpoint.ts';
import { Points, Rubric, Scale } from './grading.ts';

const Title = z.string().trim().max(200);
const Description = z.string().trim().max(2_000);

const Weighing = { weight: Hundredths.min(0).max(100_00).optional(), bonus: z.boolean().optional() };

const PlainLevel = z.object({ title: Title, description: Description, points: Points });
export const PlainRubric = z
  .array(
    z.object({
      ...{ title: Title, description: Description, levels: z.array(PlainLevel).max(20) },
      ...Weighing,
    }),
  )
  .max(50) satisfies z.ZodType<PlainCriterion[]>;

/** What a teacher sets. Ids are chosen by the browser, so that what is said about a criterion goes on being about it. */
export const NewRubric = z
  .array(
    z.object({
      id: Id,
      title: Title.min(1, 'Give each criterion a title'),
      description: Description,
      levels: z
        .array(PlainLevel.extend({ id: Id, title: Title.min(1, 'Give each level a title') }))
        .min(1, 'Each criterion needs a level')
        .max(20),
      ...Weighing,
    }),
  )
  .max(50);

const once = <T>(values: readonly T[]): boolean => new Set(values).size === values.length;
export const NewScale = Scale.max(30)
  .refine((scale) => once(scale.map(({ grade }) => grade)), 'Each grade stands once in a scale')
  .refine((scale) => once(scale.map(({ from }) => from)), 'Two grades begin at the same percentage');

/** A work that has been scored by a rubric. */
export const ScoredWork = z.object({ submission: Id, student: z.string(), returnedAt: Instant.nullable() });
export type ScoredWork = z.infer<typeof ScoredWork>;

/**
 * Replaces what an assignment is scored by. Where works have been scored by it already, this becomes a new version: they stay
 * with the old one, except those that are to move, as far as they are not returned.
 */
export const setRubric = endpoint({
  method: 'PUT',
  path: '/assignments/:assignment/rubric',
  body: z.object({ rubric: NewRubric, move: z.array(Id).max(2000).default([]) }),
  answer: z.object({ rubric: Rubric }),
});
/** What results are called, and from which share. */
export const setScale = endpoint({
  method: 'PUT',
  path: '/assignments/:assignment/scale',
  body: z.object({ scale: NewScale }),
  answer: z.object({ scale: Scale }),
});
export const readRubric = endpoint({
  method: 'GET',
  path: '/assignments/:assignment/rubric',
  answer: z.object({
    rubric: Rubric,
    scale: Scale,
    scored: z.array(ScoredWork),
  }),
});
/** What the teacher has scored by elsewhere. */
export const readShelf = endpoint({
  method: 'GET',
  path: '/rubrics',
  answer: z.array(z.object({ assignment: Id, title: z.string(), course: z.string(), rubric: PlainRubric })),
});
