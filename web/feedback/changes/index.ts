import type { Feedback } from '#contract/submissions';
import { adjusting, type Adjust } from './adjust.ts';
import { amending, type Amend } from './amend.ts';
import { answering, type Answer } from './answer.ts';
import type { Compared, Lasting, Undoable, Update } from './change.ts';
import { dealingWith, type DealWith } from './deal-with.ts';
import { droppingBanked, type DropBanked } from './drop-banked.ts';
import { givingPoints, type GivePoints } from './give-points.ts';
import { hearing, type Hear } from './hear.ts';
import { keepingOriginal, type KeepOriginal } from './keep-original.ts';
import { makingRemark, type MakeRemark } from './make-remark.ts';
import { mending, type Mend } from './mend.ts';
import { puttingAside, type PutAside } from './put-aside.ts';
import { replacingSound, type ReplaceSound } from './replace-sound.ts';
import { scoring, type Score } from './score.ts';
import { settling, type Settle } from './settle.ts';
import { takingOver, type TakeOver } from './take-over.ts';
import { translating, type Translate } from './translate.ts';

export type { Update } from './change.ts';
export { recordingIn, withRecording, withRemark } from './on-feedback.ts';

/** Changes that can be taken back, and what takes each of them back. */
export type UndoableChange =
  MakeRemark | DropBanked | PutAside | Amend | Mend | Translate | Score | GivePoints | Adjust | TakeOver | DealWith;
/** Something that a person did to the feedback on a work. */
export type Change = UndoableChange | ReplaceSound | KeepOriginal | Hear | Answer | Settle;

type Of<Type extends Change['type']> = Extract<Change, { type: Type }>;

const UNDOABLE: { [Type in UndoableChange['type']]: Undoable<Of<Type>, UndoableChange> } = {
  'make remark': makingRemark,
  'drop banked': droppingBanked,
  'put aside': puttingAside,
  amend: amending,
  mend: mending,
  translate: translating,
  score: scoring,
  'give points': givingPoints,
  adjust: adjusting,
  'take over': takingOver,
  'deal with': dealingWith,
};

/** The one table of what can be done to feedback. */
const CHANGES: { [Type in Change['type']]: Lasting<Of<Type>> } = {
  ...UNDOABLE,
  'replace sound': replacingSound,
  'keep original': keepingOriginal,
  hear: hearing,
  answer: answering,
  settle: settling,
};

const sortOf = <C extends Change>(change: C): Lasting<C> => CHANGES[change.type] as unknown as Lasting<C>;

export const applyChange = (feedback: Feedback, change: Change): Feedback => sortOf(change).apply(feedback, change);

export const sendChange = (submission: string, change: Change): Promise<Update> =>
  sortOf(change).send(submission, change);

/** A change as it is to be sent, by somebody who sees this. */
export function seen(feedback: Feedback | undefined, change: Change): Change {
  const { careful } = sortOf(change);
  return careful && feedback ? careful.seeing(feedback, change) : change;
}

export const compared = (change: Change, now: unknown): Compared[] =>
  sortOf(change).careful?.compare(change, now) ?? [];

export const changedOver = (change: Change, now: unknown): Change =>
  sortOf(change).careful?.over(change, now) ?? change;

export const touchedBy = (change: Change): string[] => sortOf(change).touches(change);

/** The change that takes another back, seen from before it. */
export const inverseOf = (feedback: Feedback, change: UndoableChange): UndoableChange | undefined =>
  (UNDOABLE[change.type] as Undoable<UndoableChange, UndoableChange>).inverse(feedback, change);

/**
 * A change as it was kept in the browser.
 * @throws ZodError where it is none
 */
export function readChange(kept: unknown): Change {
  const { type } = kept as { type?: unknown };
  const sort = CHANGES[type as Change['type']] as Lasting<Change> | undefined;
  if (!sort) throw new Error(`There is no change of the sort ${String(type)}`);
  return sort.schema.parse(kept);
}
