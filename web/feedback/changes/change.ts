import type { Feedback } from '#contract/submissions';
import type { z } from 'zod';

/** What the feedback becomes once the server has answered. */
export type Update = (feedback: Feedback) => Feedback;

/**
 * One sort of thing that a person can do to the feedback on a work. It is kept in the browser until the server has it. This one
 * cannot be taken back by itself.
 */
export interface Lasting<C> {
  schema: z.ZodType<C>;
  /** The feedback as it will be when the server has taken the change. Doing the same change twice does it once. */
  apply(feedback: Feedback, change: C): Feedback;
  /** Brings it to the server. */
  send(submission: string, change: C): Promise<Update>;
  /** Ids of the remarks and recordings that it changes. */
  touches(change: C): string[];
  /** Where the server takes it only if nobody else has changed the same thing meanwhile. */
  careful?: Careful<C>;
}

interface Careful<C> {
  /** The change with what its person sees now. */
  seeing(feedback: Feedback, change: C): C;
  /** The same change, once its person has seen what stands there now. */
  over(change: C, now: unknown): C;
  /** What stands there now beside what the change would put there, in words. */
  compare(change: C, now: unknown): Compared[];
}

export interface Compared {
  what: string;
  now: string;
  mine: string;
}

/** A change that can be taken back. */
export interface Undoable<C, Back = C> extends Lasting<C> {
  /** The change that takes this one back, seen from before it; undefined where there is nothing to take back. */
  inverse(feedback: Feedback, change: C): Back | undefined;
}
