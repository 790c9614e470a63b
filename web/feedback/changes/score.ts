import { scoreWords } from '#core/grading';
import { Id } from '#contract/basics';
import { Score as GivenScore } from '#contract/grading';
import { giveScore } from '#contract/submissions';
import { z } from 'zod';
import { call } from '../../session/api.ts';
import type { Undoable } from './change.ts';
import { scored } from './scored.ts';

const Changed = z.object({
  type: z.literal('score'),
  criterion: Id,
  score: GivenScore.nullable(),
  /** What stood there. */
  was: GivenScore.nullable().optional(),
  /** What the criterion is called, for somebody who has to choose between two scores. */
  named: z.object({ title: z.string(), levels: z.array(z.object({ id: Id, title: z.string() })) }).optional(),
});

/** Earlier versions knew levels only. */
export const Score = z.preprocess((kept) => {
  const { level, ...change } = kept as Record<string, unknown>;
  return level === undefined ? kept : { ...change, score: level === null ? null : { level } };
}, Changed);
export type Score = z.infer<typeof Score>;

export const scoring: Undoable<Score> = {
  schema: Score,
  apply: (feedback, { criterion, score }) => ({ ...feedback, scores: scored(feedback.scores, criterion, score) }),
  inverse: (feedback, { type, criterion }) => ({ type, criterion, score: feedback.scores[criterion] ?? null }),
  async send(submission, { criterion, score, was }) {
    const body = { score, ...(was !== undefined && { was }) };
    const { scores } = await call(giveScore, { params: { submission, criterion }, body });
    return (feedback) => ({ ...feedback, scores });
  },
  touches: ({ criterion }) => [criterion],
  careful: {
    seeing(feedback, change) {
      const named = feedback.rubric.find(({ id }) => id === change.criterion);
      return { ...change, was: feedback.scores[change.criterion] ?? null, ...(named && { named }) };
    },
    over: (change, now) => ({ ...change, was: GivenScore.nullable().parse(now) }),
    compare({ score, named = { title: 'Score', levels: [] } }, now) {
      const theirs = GivenScore.nullable().parse(now);
      return [{ what: named.title, now: scoreWords(named, theirs), mine: scoreWords(named, score) }];
    },
  },
};
