import { Id } from '#contract/basics';
import { chooseLevel } from '#contract/submissions';
import { z } from 'zod';
import { call } from '../../session/api.ts';
import type { Undoable } from './change.ts';
import { scored } from './scored.ts';

export const Score = z.object({ type: z.literal('score'), criterion: Id, level: Id.nullable() });
export type Score = z.infer<typeof Score>;

export const scoring: Undoable<Score> = {
  schema: Score,
  apply: (feedback, { criterion, level }) => ({ ...feedback, scores: scored(feedback.scores, criterion, level) }),
  inverse: (feedback, change) => ({ ...change, level: feedback.scores[change.criterion] ?? null }),
  async send(submission, { criterion, level }) {
    const { scores } = await call(chooseLevel, { params: { submission, criterion }, body: { level } });
    return (feedback) => ({ ...feedback, scores });
  },
  touches: ({ criterion }) => [criterion],
};
