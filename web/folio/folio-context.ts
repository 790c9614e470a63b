import type { Anchor } from '#core/anchor';
import type { Stretch } from '#core/folio';
import type { Ink } from '#contract/ink';
import type { Stamp } from '#contract/stamps';
import { inject, type InjectionKey } from 'vue';
import type { WordlessPage } from './use-recognised.ts';

/** A remark as it is drawn in the work. */
export interface DrawnMark {
  id: string;
  kind: string;
  anchor: Anchor;
  /** What lies on the work beside the line under the words. */
  stamp?: Stamp | null;
  reaction?: string | null;
  suggestion?: string | null;
  ink?: Ink | null;
}

/** A passage as it is drawn in the work. */
export interface DrawnStretch extends Stretch {
  kind: string;
  stamp?: Stamp | null;
  reaction?: string | null;
  /** It shows itself, so that its words need no line. */
  inked?: boolean;
}

/** A part of a suggestion as it is drawn in the work: words struck, and words put in before or after. */
export interface DrawnEdit extends Stretch {
  kind: string;
  struck: boolean;
  before?: string;
  after?: string;
}

/** What the parts of a drawn work share. */
export interface FolioContext {
  submission: string;
  marks: readonly DrawnMark[];
  /** The passages among the marks, by the ids of their remarks. */
  stretches: ReadonlyMap<string, DrawnStretch>;
  /** The suggestions among them, cut into their parts. */
  edits: ReadonlyMap<string, readonly DrawnEdit[]>;
  /** Both: wherever one of them begins or ends, the words are cut. */
  cuts: readonly Stretch[];
  focused: string | undefined;
  /** What is chosen to be spoken about, where it is not a selection of words. */
  target: Anchor | undefined;
  /** Whether a new box can be drawn, a stretch be dragged and cells be chosen. */
  choosing: boolean;
  /** Dragging draws a box, also where there are words. */
  boxing: boolean;
  /** Something was drawn, or somebody draws. */
  inked: boolean;
  /** Pages and pictures without a text of their own, by their numbers from 0. */
  wordless: ReadonlyMap<number, WordlessPage>;
  pick(id: string): void;
  choose(anchor: Anchor | undefined): void;
}

export const FOLIO: InjectionKey<FolioContext> = Symbol('folio');

export function useFolio(): FolioContext {
  const context = inject(FOLIO);
  if (!context) throw new Error('This is drawn inside of a work only');
  return context;
}

/** The keyboard goes back to the work, so that the space bar speaks instead of pressing what was pressed last. */
export const focusWork = (from: EventTarget | null): void =>
  (from as Element | null)?.closest<HTMLElement>('.folio')?.focus({ preventScroll: true });
