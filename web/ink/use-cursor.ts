import { isShape, type DrawnStroke, type InkPoint, type InkTool } from '#core/ink';
import { computed, shallowRef, type ComputedRef, type ShallowRef } from 'vue';

/** Pixels of one press of an arrow key, and with Shift. */
const [STEP, SMALL_STEP] = [12, 2];

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

export interface Cursor {
  at: ShallowRef<InkPoint | undefined>;
  /** From where it was begun to where the cursor is. */
  shape: ComputedRef<DrawnStroke | undefined>;
  /** @returns whether the key was meant */
  key(event: KeyboardEvent): boolean;
  drop(): void;
}

/** Shapes by keyboard: Enter begins one where the cursor is, arrow keys lead to its end, Enter ends it. */
export function useCursor(
  look: () => Omit<DrawnStroke, 'points'>,
  middle: () => { x: number; y: number },
  done: (stroke: DrawnStroke) => void,
): Cursor {
  const at = shallowRef<InkPoint>();
  const from = shallowRef<InkPoint>();
  const shape = computed((): DrawnStroke | undefined =>
    from.value && at.value ? { ...look(), points: [from.value, at.value] } : undefined,
  );

  function drop(): void {
    at.value = from.value = undefined;
  }

  function key(event: KeyboardEvent): boolean {
    const { tool } = look();
    if (!isShape(tool as InkTool)) return false;
    const arrow = ARROWS[event.key];
    if (arrow || event.key === 'Enter') at.value ??= { ...middle(), pressure: 0.5, at: 0 };
    if (arrow) {
      const step = event.shiftKey ? SMALL_STEP : STEP;
      const { x, y } = at.value!;
      at.value = { x: x + arrow[0] * step, y: y + arrow[1] * step, pressure: 0.5, at: from.value ? 1 : 0 };
      return true;
    }
    if (event.key === 'Enter') {
      if (tool === 'label') done({ ...look(), points: [at.value!] });
      else if (!from.value) from.value = at.value;
      else {
        done(shape.value!);
        from.value = undefined;
      }
      return true;
    }
    if (event.key !== 'Escape' || !at.value) return false;
    if (from.value) from.value = undefined;
    else drop();
    return true;
  }

  return { at, shape, key, drop };
}
