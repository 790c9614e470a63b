import type {
  Band as CoreBand,
  Criterion as CoreCriterion,
  Grade as CoreGrade,
  Scores as CoreScores,
} from '#core/grading';
import { z } from 'zod';
import { Hundredths, Id } from './basics.ts';

export const Rubric = z.array(
  z.object({
    id: Id,
    title: z.string(),
    description: z.string(),
    levels: z.array(z.object({ id: Id, title: z.string(), description: z.string(), points: Hundredths })),
  }),
) satisfies z.ZodType<CoreCriterion[]>;

export const Scale = z.array(
  z.object({ grade: z.string().min(1), from: Hundredths.min(0).max(10_000) }),
) satisfies z.ZodType<CoreBand[]>;

export const Scores = z.record(Id, Id) satisfies z.ZodType<CoreScores>;

export const Grade = z.object({
  points: Hundredths,
  possible: Hundredths,
  percentage: Hundredths,
  grade: z.string().optional(),
}) satisfies z.ZodType<CoreGrade>;
