import { Id } from '#contract/basics';
import { changeRemark, RemarkChange, type Remark } from '#contract/remarks';
import { z } from 'zod';
import { call } from '../../session/api.ts';
import type { Undoable } from './change.ts';
import { changedRemark, remarkIn, withRemark } from './on-feedback.ts';

/** What a remark says, its kind or its place. */
export const Amend = z.object({
  type: z.literal('amend'),
  remark: Id,
  change: RemarkChange,
  /** What stood there. */
  was: RemarkChange.optional(),
});
export type Amend = z.infer<typeof Amend>;

export const amending: Undoable<Amend> = {
  schema: Amend,
  apply: (feedback, { remark, change }) => changedRemark(feedback, remark, () => given(change)),
  inverse(feedback, amend) {
    const remark = remarkIn(feedback, amend.remark);
    return remark && { ...amend, change: before(remark, amend.change) };
  },
  async send(_, { remark, change, was }) {
    const changed = await call(changeRemark, { params: { remark }, body: { ...change, ...(was && { was }) } });
    return (feedback) => withRemark(feedback, changed);
  },
  touches: ({ remark }) => [remark],
  careful: {
    seeing(feedback, amend) {
      const remark = remarkIn(feedback, amend.remark);
      return remark ? { ...amend, was: before(remark, amend.change) } : amend;
    },
    over: (amend, now) => ({ ...amend, was: { ...amend.was, ...RemarkChange.parse(now) } }),
    compare(amend, now) {
      const theirs = RemarkChange.parse(now);
      return (Object.keys(theirs) as (keyof RemarkChange)[]).map((name) => ({
        what: NAMES[name],
        now: inWords(theirs[name]),
        mine: inWords(amend.change[name]),
      }));
    },
  },
};

const NAMES: Record<keyof RemarkChange, string> = {
  name: 'Name',
  text: 'Text',
  link: 'Link',
  reaction: 'Reaction',
  suggestion: 'Suggestion',
  stamp: 'Stamp',
  ink: 'What was drawn',
  tags: 'Tags',
  criterion: 'Criterion',
  private: 'Private',
  kind: 'Kind',
  anchor: 'Passage',
};

function inWords(value: RemarkChange[keyof RemarkChange]): string {
  if (value === null || value === undefined || value === '') return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string') return value;
  if (Array.isArray(value))
    return value.map((one) => (typeof one === 'string' ? one : one.tool)).join(', ') || 'nothing';
  return 'quote' in value ? value.quote.exact : 'another one';
}

const before = (remark: Remark, change: RemarkChange): RemarkChange =>
  Object.fromEntries(Object.keys(change).map((name) => [name, remark[name as keyof RemarkChange]]));

/** Without what is not said: an absent property and an undefined one are the same to the wire. */
const given = (change: RemarkChange): Partial<Remark> =>
  Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined)) as Partial<Remark>;
