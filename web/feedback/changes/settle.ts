import { Id, Instant } from '#contract/basics';
import { settleRemark } from '#contract/remarks';
import { z } from 'zod';
import { call } from '../../session/api.ts';
import type { Lasting } from './change.ts';
import { changedRemark, withRemark } from './on-feedback.ts';

/** Somebody says that nothing more is to be said about a remark, or that something is. */
export const Settle = z.object({
  type: z.literal('settle'),
  remark: Id,
  settled: z.boolean(),
  by: z.object({ id: Id, name: z.string() }),
  at: Instant,
});
export type Settle = z.infer<typeof Settle>;

export const settling: Lasting<Settle> = {
  schema: Settle,
  apply: (feedback, { remark, settled, by, at }) =>
    changedRemark(feedback, remark, () => ({ settled: settled ? { at, by } : null })),
  async send(_, { remark, settled }) {
    const answered = await call(settleRemark, { params: { remark }, body: { settled } });
    return (feedback) => withRemark(feedback, answered);
  },
  touches: ({ remark }) => [remark],
};
