import { formatHundredths } from '#core/grading';
import { Adjustment } from '#contract/grading';
import { adjustResult } from '#contract/submissions';
import { z } from 'zod';
import { call } from '../../session/api.ts';
import type { Undoable } from './change.ts';

/** Extra credit, or another total. */
export const Adjust = z.object({
  type: z.literal('adjust'),
  adjustment: Adjustment.nullable(),
  /** What stood there. */
  was: Adjustment.nullable().optional(),
});
export type Adjust = z.infer<typeof Adjust>;

function words(adjustment: Adjustment | null): string {
  const { extra = null, total = null, reason = '' } = adjustment ?? {};
  const said = [
    ...(total === null ? [] : [`a total of ${formatHundredths(total)}`]),
    ...(extra === null ? [] : [`${formatHundredths(extra)} extra`]),
    ...(reason === '' ? [] : [reason]),
  ];
  return said.join(', ') || 'nothing';
}

export const adjusting: Undoable<Adjust> = {
  schema: Adjust,
  apply: (feedback, { adjustment }) => ({ ...feedback, adjustment }),
  inverse: (feedback, { type }) => ({ type, adjustment: feedback.adjustment }),
  async send(submission, { adjustment, was }) {
    const body = { adjustment, ...(was !== undefined && { was }) };
    const answer = await call(adjustResult, { params: { submission }, body });
    return (feedback) => ({ ...feedback, adjustment: answer.adjustment });
  },
  touches: () => ['adjustment'],
  careful: {
    seeing: (feedback, change) => ({ ...change, was: feedback.adjustment }),
    over: (change, now) => ({ ...change, was: Adjustment.nullable().parse(now) }),
    compare: (change, now) => [
      { what: 'Result', now: words(Adjustment.nullable().parse(now)), mine: words(change.adjustment) },
    ],
  },
};
