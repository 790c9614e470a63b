import { formatHundredths } from '#core/grading';
import { Hundredths, Id } from '#contract/basics';
import { givePoints } from '#contract/submissions';
import { z } from 'zod';
import { call } from '../../session/api.ts';
import type { Undoable } from './change.ts';
import { scored } from './scored.ts';

const Given = Hundredths.min(0).nullable();

export const GivePoints = z.object({
  type: z.literal('give points'),
  question: Id,
  points: Given,
  /** What stood there. */
  was: Given.optional(),
});
export type GivePoints = z.infer<typeof GivePoints>;

const words = (points: number | null): string =>
  points === null ? 'no points yet' : `${formatHundredths(points)} points`;

export const givingPoints: Undoable<GivePoints> = {
  schema: GivePoints,
  apply: (feedback, { question, points }) => ({ ...feedback, points: scored(feedback.points, question, points) }),
  inverse: (feedback, { type, question }) => ({ type, question, points: feedback.points[question] ?? null }),
  async send(submission, { question, points, was }) {
    const body = { points, ...(was !== undefined && { was }) };
    const given = await call(givePoints, { params: { submission, question }, body });
    return (feedback) => ({ ...feedback, points: given.points });
  },
  touches: ({ question }) => [question],
  careful: {
    seeing: (feedback, change) => ({ ...change, was: feedback.points[change.question] ?? null }),
    over: (change, now) => ({ ...change, was: Given.parse(now) }),
    compare: ({ points }, now) => [{ what: 'Points', now: words(Given.parse(now)), mine: words(points) }],
  },
};
