import type { Anchor } from '#core/anchor';
import type { Rubric } from '#core/grading';
import type { Remark, RemarkChange } from '#contract/remarks';
import type { EarlierRemark } from '#contract/submissions';
import { inject, type InjectionKey } from 'vue';
import type { Draft } from '../remark/draft.ts';

/** What everything in the margin of the desk shares, so that each part is drawn again only when it changes itself. */
export interface DeskMargin {
  submission: string;
  student: string;
  rubric: Rubric;
  returned: boolean;
  /** The remark whose sound is being edited. */
  cutting: string | undefined;
  /** The remark whose transcript is being mended. */
  mending: string | undefined;
  draft: Draft | null;
  /** What is chosen in the work, and what it is called. */
  target: { anchor: Anchor; name: string } | undefined;
  focus(id: string): void;
  setKind(remark: Remark, kind: string): void;
  speakAgain(remark: Remark): void;
  putAside(remark: Remark): void;
  mend(remark: Remark, mended: { text: string; read: boolean }): void;
  amend(remark: Remark, change: RemarkChange): void;
  cut(remark: Remark, open: boolean): void;
  openTranscript(remark: Remark, open: boolean): void;
  putHere(earlier: EarlierRemark): void;
  lose(earlier: EarlierRemark): void;
  setDraft(draft: Draft): void;
  saveDraft(file: File | undefined): void;
  cancelDraft(): void;
}

export const DESK_MARGIN: InjectionKey<DeskMargin> = Symbol('desk margin');

export function useDeskMargin(): DeskMargin {
  const margin = inject(DESK_MARGIN);
  if (!margin) throw new Error('This stands in the margin of the desk only');
  return margin;
}
