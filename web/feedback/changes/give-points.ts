import { Hundredths, Id } from '#contract/basics';
import { givePoints } from '#contract/submissions';
import { z } from 'zod';
import { call } from '../../session/api.ts';
import type { Undoable } from './change.ts';
import { scored } from './scored.ts';

export const GivePoints = z.object({
  type: z.literal('give points'),
  question: Id,
  points: Hundredths.min(0).nullable(),
});
export type GivePoints = z.infer<typeof GivePoints>;

export const givingPoints: Undoable<GivePoints> = {
  schema: GivePoints,
  apply: (feedback, { question, points }) => ({ ...feedback, points: scored(feedback.points, question, points) }),
  inverse: (feedback, change) => ({ ...change, points: feedback.points[change.question] ?? null }),
  async send(submission, { question, points }) {
    const given = await call(givePoints, { params: { submission, question }, body: { points } });
    return (feedback) => ({ ...feedback, points: given.points });
  },
  touches: ({ question }) => [question],
};
