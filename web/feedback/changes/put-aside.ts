import { Id } from '#contract/basics';
import { putRemarkAside } from '#contract/remarks';
import type { Feedback } from '#contract/submissions';
import { z } from 'zod';
import { call } from '../../session/api.ts';
import type { Undoable } from './change.ts';
import { inOrder, withRemark } from './on-feedback.ts';

export const PutAside = z.object({ type: z.literal('put aside'), remark: Id, aside: z.boolean() });
export type PutAside = z.infer<typeof PutAside>;

export const puttingAside: Undoable<PutAside> = {
  schema: PutAside,
  apply: (feedback, { remark, aside }) =>
    aside ? moved(feedback, remark, 'remarks', 'aside') : moved(feedback, remark, 'aside', 'remarks'),
  inverse: (_, change) => ({ ...change, aside: !change.aside }),
  async send(_, { remark, aside }) {
    const put = await call(putRemarkAside, { params: { remark }, body: { aside } });
    return (feedback) => withRemark(feedback, put);
  },
  touches: ({ remark }) => [remark],
};

function moved(feedback: Feedback, id: string, from: 'remarks' | 'aside', to: 'remarks' | 'aside'): Feedback {
  const remark = feedback[from].find((candidate) => candidate.id === id);
  if (!remark) return feedback;
  return {
    ...feedback,
    [from]: feedback[from].filter((candidate) => candidate !== remark),
    [to]: [...feedback[to], remark].sort(inOrder),
  };
}
