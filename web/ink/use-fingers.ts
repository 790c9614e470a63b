import { useInkTools } from './ink-tools.ts';

/** How much further apart two fingers have to be for one step of zoom. */
const STEP = 1.25;

export interface Fingers {
  /** @returns whether the touch is a finger that moves the paper, and no stroke */
  down(event: PointerEvent, drawing: boolean): boolean;
  /** @returns whether it was one of them */
  move(event: PointerEvent): boolean;
  up(event: PointerEvent): boolean;
}

/** Fingers move the paper while a pen writes: one scrolls, two zoom. Where no pen was seen, one finger draws and two scroll. */
export function useFingers(scroller: () => Element | null | undefined): Fingers {
  const { penSeen, pinch } = useInkTools();
  const down = new Map<number, { x: number; y: number }>();
  let apart: number | undefined;

  const distance = (): number => {
    const [a, b] = [...down.values()];
    return a && b ? Math.hypot(a.x - b.x, a.y - b.y) : 0;
  };

  return {
    down(event, drawing) {
      if (event.pointerType === 'pen') penSeen.value = true;
      if (event.pointerType !== 'touch' || (!penSeen.value && !drawing && down.size === 0)) return false;
      down.set(event.pointerId, { x: event.clientX, y: event.clientY });
      apart = down.size === 2 ? distance() : undefined;
      return true;
    },
    move(event) {
      const before = down.get(event.pointerId);
      if (!before) return false;
      down.set(event.pointerId, { x: event.clientX, y: event.clientY });
      const share = 1 / down.size;
      scroller()?.scrollBy((before.x - event.clientX) * share, (before.y - event.clientY) * share);
      if (apart === undefined || down.size !== 2) return true;
      const by = distance() / apart;
      if (by > STEP || by < 1 / STEP) {
        void pinch.trigger(by > 1 ? 1 : -1);
        apart = distance();
      }
      return true;
    },
    up(event) {
      apart = undefined;
      return down.delete(event.pointerId);
    },
  };
}
