import type { Grade } from '#core/grading';
import { z } from 'zod';

/** The result of a work as it was returned; numeric columns are read as whole hundredths. */
export const GRADE_COLUMNS = `(s.points * 100)::int as points, (s.possible * 100)::int as possible,
  (s.percentage * 100)::int as percentage, s.grade`;

export const GradeRow = z.object({
  points: z.int().nullable(),
  possible: z.int().nullable(),
  percentage: z.int().nullable(),
  grade: z.string().nullable(),
});

export function gradeOfRow({ points, possible, percentage, grade }: z.infer<typeof GradeRow>): Grade | null {
  if (points === null || possible === null || percentage === null) return null;
  return { points, possible, percentage, ...(grade !== null && { grade }) };
}
