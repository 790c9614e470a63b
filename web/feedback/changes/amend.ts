import { Id } from '#contract/basics';
import { changeRemark, RemarkChange, type Remark } from '#contract/remarks';
import { z } from 'zod';
import { call } from '../../session/api.ts';
import type { Undoable } from './change.ts';
import { changedRemark, remarkIn, withRemark } from './on-feedback.ts';

/** What a remark says, its kind or its place. */
export const Amend = z.object({ type: z.literal('amend'), remark: Id, change: RemarkChange });
export type Amend = z.infer<typeof Amend>;

export const amending: Undoable<Amend> = {
  schema: Amend,
  apply: (feedback, { remark, change }) => changedRemark(feedback, remark, () => given(change)),
  inverse(feedback, amend) {
    const remark = remarkIn(feedback, amend.remark);
    return remark && { ...amend, change: before(remark, amend.change) };
  },
  async send(_, { remark, change }) {
    const changed = await call(changeRemark, { params: { remark }, body: change });
    return (feedback) => withRemark(feedback, changed);
  },
  touches: ({ remark }) => [remark],
};

const before = (remark: Remark, change: RemarkChange): RemarkChange =>
  Object.fromEntries(Object.keys(change).map((name) => [name, remark[name as keyof RemarkChange]]));

/** Without what is not said: an absent property and an undefined one are the same to the wire. */
const given = (change: RemarkChange): Partial<Remark> =>
  Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined)) as Partial<Remark>;
