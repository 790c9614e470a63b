import type { PlainCriterion } from '#core/grading';
import { z } from 'zod';
import { Hundredths, Id } from './basics.ts';
import { endpoint } from './endpoint.ts';
import { Points, Rubric, Scale } from './grading.ts';

const Title = z.string().trim().max(200);
const Description = z.string().trim().max(2_000);

const PlainLevel = z.object({ title: Title, description: Description, points: Points });
export const PlainRubric = z
  .array(z.object({ title: Title, description: Description, levels: z.array(PlainLevel).max(20) }))
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
      weight: Hundredths.min(0).max(100_00).optional(),
      bonus: z.boolean().optional(),
    }),
  )
  .max(50);

export const NewScale = Scale.max(30).refine(
  (scale) => new Set(scale.map(({ grade }) => grade)).size === scale.length,
  'Each grade stands once in a scale',
);

/** Replaces what an assignment is scored by, as long as nobody has been scored. */
export const setRubric = endpoint({
  method: 'PUT',
  path: '/assignments/:assignment/rubric',
  body: z.object({ rubric: NewRubric, scale: NewScale }),
  answer: z.object({ rubric: Rubric, scale: Scale }),
});
export const readRubric = endpoint({
  method: 'GET',
  path: '/assignments/:assignment/rubric',
  answer: z.object({
    rubric: Rubric,
    scale: Scale,
    /** How many works have been scored by it. */
    scored: z.int(),
  }),
});
/** What the teacher has scored by elsewhere. */
export const readShelf = endpoint({
  method: 'GET',
  path: '/rubrics',
  answer: z.array(z.object({ assignment: Id, title: z.string(), course: z.string(), rubric: PlainRubric })),
});
