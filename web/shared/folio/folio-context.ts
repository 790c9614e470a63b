import type { Anchor } from '#core/anchor';
import type { Stretch } from '#core/folio';
import type { Kind } from '#contract/remarks';
import { inject, type InjectionKey } from 'vue';

/** A remark as it is drawn in the work. */
export interface DrawnMark {
  id: string;
  kind: Kind;
  anchor: Anchor;
}

/** A passage as it is drawn in the work. */
export interface DrawnStretch extends Stretch {
  kind: Kind;
}

/** What the parts of a drawn work share. */
export interface FolioContext {
  submission: string;
  marks: readonly DrawnMark[];
  /** The passages among the marks. */
  stretches: readonly DrawnStretch[];
  focused: string | undefined;
  /** What is chosen to be spoken about, where it is not a selection of words. */
  target: Anchor | undefined;
  /** Whether a new box can be drawn, a stretch be dragged and cells be chosen. */
  choosing: boolean;
  /** Dragging draws a box, also where there are words. */
  boxing: boolean;
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
