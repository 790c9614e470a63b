import type { Anchor } from '#core/anchor';
import type { Rubric } from '#core/grading';
import type { Remark } from '#contract/remarks';
import type { EarlierRemark } from '#contract/submissions';
import { inject, type ComputedRef, type InjectionKey, type Ref, type ShallowRef } from 'vue';
import type { DeskDeeds } from './commands.ts';
import type { Notice } from './notice.ts';
import type { Talking } from './use-talking.ts';
import type { Writing } from './use-writing.ts';

/** What the parts of the desk share: what it shows, and what can be done at it. */
export interface Desk extends DeskDeeds {
  submission: ComputedRef<string>;
  student: ComputedRef<string>;
  rubric: ComputedRef<Rubric>;
  returned: ComputedRef<boolean>;
  focused: Ref<string | undefined>;
  /** The remark whose sound is being edited. */
  cutting: Ref<string | undefined>;
  /** The talk-through of which several remarks are being made. */
  apart: Ref<string | undefined>;
  /** The remark whose transcript is being mended. */
  mending: Ref<string | undefined>;
  /** What is chosen in the work, and what it is called. */
  target: ComputedRef<{ anchor: Anchor; name: string } | undefined>;
  /** What a remark from the bank is to be about, while the bank is open: typing takes the selection away. */
  banking: ShallowRef<Anchor | undefined>;
  /** Names of the students who have this assignment. */
  classNames: ComputedRef<string[]>;
  /** What the next remark is for. */
  nextKind: Ref<string>;
  /** Seconds that are being counted before the recording begins. */
  counting: Ref<number>;
  /** What was just done, with the way back. */
  notice: ShallowRef<Notice | undefined>;
  writing: Writing;
  /** The talk-through that is being recorded. */
  talking: Talking;
  /** Begins to record, or ends it. */
  press(): void;
  speakAgain(remark: Remark): void;
  /** Shows what remarks a talk-through would make. */
  takeApart(remark: Pick<Remark, 'id'>): void;
  /** Begins to record about one criterion, or ends it. */
  speakAbout(criterion: string): void;
  writeAbout(criterion: string): void;
  /** Leads to a remark in the margin. */
  goTo(remark: string): void;
  putRemarkAside(remark: Remark): void;
  react(emoji: string): void;
  putHere(earlier: EarlierRemark): void;
  lose(earlier: EarlierRemark): void;
  wayBack(): Promise<void>;
}

export const DESK: InjectionKey<Desk> = Symbol('desk');

export function useDesk(): Desk {
  const desk = inject(DESK);
  if (!desk) throw new Error('This is a part of the desk');
  return desk;
}
