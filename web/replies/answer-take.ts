import { z } from 'zod';
import { Id } from '#contract/basics';
import type { TakeKind } from '../recorder/take-kind.ts';

/** An answer that is being spoken: to which remark, or about which criterion. Its place is the work. */
export const ANSWER_TAKE: TakeKind<{ remark: string; criterion?: string | undefined }> = {
  type: 'reply',
  about: z.object({ remark: Id, criterion: Id.optional() }),
};
