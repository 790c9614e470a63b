import type { PlacedStroke, Stroke } from '#core/ink';
import type { InjectionKey } from 'vue';

/** Stands for a remark where a stroke belongs to the talk-through that is being made. */
export const TALKED = 'talked through';

/** One stroke of a remark, and what takes its place; nothing where it was rubbed out. */
export interface StrokeChange {
  remark: string;
  stroke: Stroke;
  to: PlacedStroke[];
}

/** What a hand that draws does to the remarks; where nobody may draw there is none. */
export interface Inking {
  draw(stroke: PlacedStroke): void;
  change(changes: readonly StrokeChange[]): void;
  /** All strokes of the work as an InkML file; undefined where there are none. */
  save(): { name: string; content: string } | undefined;
  /** Puts the strokes of an InkML file on the page in sight. @throws NoInkml */
  take(content: string): Promise<void>;
}

export const INKING: InjectionKey<Inking> = Symbol('inking');
