import { Id, Instant } from '#contract/basics';
import { dealWithRemark } from '#contract/remarks';
import { z } from 'zod';
import { call } from '../../session/api.ts';
import type { Undoable } from './change.ts';
import { changedRemark, withRemark } from './on-feedback.ts';

/** A student has dealt with a remark in their next version, or not any more. */
export const DealWith = z.object({ type: z.literal('deal with'), remark: Id, dealt: z.boolean(), at: Instant });
export type DealWith = z.infer<typeof DealWith>;

export const dealingWith: Undoable<DealWith> = {
  schema: DealWith,
  apply: (feedback, { remark, dealt, at }) => changedRemark(feedback, remark, () => ({ dealtAt: dealt ? at : null })),
  inverse: (_, change) => ({ ...change, dealt: !change.dealt }),
  async send(_, { remark, dealt }) {
    const answered = await call(dealWithRemark, { params: { remark }, body: { dealt } });
    return (feedback) => withRemark(feedback, answered);
  },
  touches: ({ remark }) => [remark],
};
