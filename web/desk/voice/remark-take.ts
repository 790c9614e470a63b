import { Anchor } from '#contract/anchor';
import { Id } from '#contract/basics';
import { Ink } from '#contract/ink';
import { Kind } from '#contract/margin-key';
import { z } from 'zod';
import type { TakeKind } from '../../recorder/take-kind.ts';

const About = z.object({
  anchor: Anchor,
  kind: Kind,
  /** Where it is about one criterion of the rubric. */
  criterion: Id.optional(),
  /** The remark whose place it takes. */
  instead: Id.optional(),
  /** What was drawn before it was spoken about. */
  ink: Ink.nullable().optional(),
  /** It goes on while the teacher scrolls, chooses and draws; what they do is noted with it. */
  talk: z.literal(true).optional(),
});
export type RemarkTake = z.infer<typeof About>;

/** A remark that is being spoken. Its place is the work. */
export const REMARK_TAKE: TakeKind<RemarkTake> = { type: 'remark', about: About };
