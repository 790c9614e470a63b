import { Id, Instant } from '#contract/basics';
import { takeSuggestion } from '#contract/remarks';
import { z } from 'zod';
import { call } from '../../session/api.ts';
import type { Undoable } from './change.ts';
import { changedRemark, withRemark } from './on-feedback.ts';

/** A student makes a suggestion their own, or not any more. */
export const TakeOver = z.object({ type: z.literal('take over'), remark: Id, taken: z.boolean(), at: Instant });
export type TakeOver = z.infer<typeof TakeOver>;

export const takingOver: Undoable<TakeOver> = {
  schema: TakeOver,
  apply: (feedback, { remark, taken, at }) => changedRemark(feedback, remark, () => ({ takenAt: taken ? at : null })),
  inverse: (_, change) => ({ ...change, taken: !change.taken }),
  async send(_, { remark, taken }) {
    const answered = await call(takeSuggestion, { params: { remark }, body: { taken } });
    return (feedback) => withRemark(feedback, answered);
  },
  touches: ({ remark }) => [remark],
};
