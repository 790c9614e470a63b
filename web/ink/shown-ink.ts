import type { Stroke } from '#core/ink';
import type { ComputedRef, InjectionKey } from 'vue';

/** A stroke that belongs to a talk-through: it is shown as it was drawn, and pressed to hear what was said meanwhile. */
export interface ShownStroke {
  key: number;
  leaf: number;
  /** The UTF-16 offset that it hangs on, where it hangs on words. */
  start: number | undefined;
  ink: [Stroke];
  /** How much of it is drawn: seconds since its beginning; before that less than 0. All of it where this is not told. */
  until: number | undefined;
}

export interface ShownInk {
  strokes: ComputedRef<readonly ShownStroke[]>;
  /** Whether a press on a stroke does something. */
  pick: ((key: number) => void) | undefined;
}

export const SHOWN_INK: InjectionKey<ShownInk> = Symbol('shown ink');
