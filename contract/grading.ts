import type {
  Adjustment as CoreAdjustment,
  Band as CoreBand,
  Criterion as CoreCriterion,
  Flag as CoreFlag,
  Grade as CoreGrade,
  Marking as CoreMarking,
  Score as CoreScore,
} from '#core/grading';
import { z } from 'zod';
import { Hundredths, Id, Instant } from './basics.ts';

const LONGEST_GRADE = 60;

/** Of what is set: more is a slip of the finger. */
export const Points = Hundredths.min(0).max(1_000_00);
const Percent = Hundredths.min(0).max(100_00);

export const Rubric = z.array(
  z.object({
    id: Id,
    title: z.string(),
    description: z.string(),
    levels: z.array(z.object({ id: Id, title: z.string(), description: z.string(), points: Hundredths })),
    weight: Hundredths.optional(),
    bonus: z.boolean().optional(),
  }),
) satisfies z.ZodType<CoreCriterion[]>;

export const Scale = z.array(
  z.object({ grade: z.string().min(1).max(LONGEST_GRADE), from: Hundredths.min(0).max(10_000) }),
) satisfies z.ZodType<CoreBand[]>;

export const Score = z.union([
  z.object({ level: Id }),
  z.object({ points: Points }),
  z.object({ notAssessed: z.literal(true) }),
]) satisfies z.ZodType<CoreScore>;

export const Scores = z.record(Id, Score);
export type Scores = z.infer<typeof Scores>;

export const Marking = z.object({
  shown: z.enum(['level', 'points', 'percent']),
  decimals: z.int().min(0).max(2),
  halfSteps: z.boolean(),
  possible: Points.min(1).nullable(),
  late: z
    .object({
      /** Minutes. */
      grace: z.int().min(0).max(40_000),
      unit: z.enum(['hour', 'day']),
      percent: Percent,
      of: z.enum(['earned', 'possible']),
      floor: Percent,
    })
    .nullable(),
}) satisfies z.ZodType<CoreMarking>;

export const Adjustment = z.object({
  extra: Hundredths.min(-1_000_00).max(1_000_00).nullable(),
  total: Points.nullable(),
  reason: z.string().trim().max(500),
}) satisfies z.ZodType<CoreAdjustment>;
export type Adjustment = z.infer<typeof Adjustment>;

export const Flag = z.enum(['missing', 'incomplete', 'excused']) satisfies z.ZodType<CoreFlag>;

/** What a teacher decides about one student in one assignment. */
export const Standing = z.object({ flag: Flag.nullable(), extendedUntil: Instant.nullable() });
export type Standing = z.infer<typeof Standing>;

export const Grade = z.object({
  points: Hundredths,
  possible: Hundredths,
  percentage: Hundredths,
  grade: z.string().optional(),
  explanation: z.string().optional(),
}) satisfies z.ZodType<CoreGrade>;
