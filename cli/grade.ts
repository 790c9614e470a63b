import { decimalOf, exactOf, resultOf, type Exact } from '#core/grading';
import { readFile } from 'node:fs/promises';
import { z } from 'zod';
import { parseJson } from './reattach.ts';

/** A number as it is written: `0.1` is a tenth, not what a computer takes for it. */
const Decimal = z.union([z.number(), z.string()]).transform((value, context): Exact => {
  const read = exactOf(String(value));
  if (read) return read;
  context.addIssue({ code: 'custom', message: 'is no decimal number' });
  return z.NEVER;
});
const Percent = Decimal;

const Part = z.strictObject({
  title: z.string(),
  possible: Decimal,
  points: Decimal.nullable(),
  weight: Percent.optional(),
  bonus: z.boolean().optional(),
  notAssessed: z.boolean().optional(),
});

/** docs/grade.md says what each of these means. */
export const GradeCase = z.strictObject({
  parts: z.array(Part),
  possible: Decimal.optional(),
  extra: Decimal.optional(),
  late: z
    .strictObject({
      minutes: z.int().min(0),
      grace: z.int().min(0).default(0),
      unit: z.enum(['hour', 'day']),
      percent: Percent,
      of: z.enum(['earned', 'possible']).default('possible'),
      floor: Percent.default(exactOf('0')!),
    })
    .transform(({ minutes, ...rule }) => ({ minutes, rule }))
    .optional(),
  flag: z.enum(['missing', 'incomplete', 'excused']).optional(),
  override: z.strictObject({ points: Decimal, reason: z.string().trim().min(1) }).optional(),
  levels: z.array(z.strictObject({ name: z.string().min(1), from: Percent })).optional(),
  decimals: z.int().min(0).max(6).default(2),
});

/** What the scores of a work come to; null where there is no result. */
export async function grade(file: string): Promise<object> {
  const one = GradeCase.parse(parseJson(await readFile(file, 'utf8'), file));
  const { points, possible, percent, level, explanation } = resultOf(one);
  const written = (value: Exact | null): number | null => value && Number(decimalOf(value, 6));
  return { points: written(points), possible: written(possible), percent: written(percent), level, explanation };
}
