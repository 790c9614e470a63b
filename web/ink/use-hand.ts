import { isShape, penPressure, touches, type DrawnStroke, type InkPoint } from '#core/ink';
import { useInkTools } from './ink-tools.ts';
import type { StrokeChange } from './inking.ts';
import { liveCanvas, type LiveCanvas } from './live-canvas.ts';
import { useFingers } from './use-fingers.ts';
import type { Lasso, Lying } from './use-lasso.ts';

/** Pixels. */
const ERASER = 8;
/** A press without a drag is no shape. */
const SMALLEST_SHAPE = 3;

interface Options {
  layer: () => HTMLElement | null;
  canvas: () => HTMLCanvasElement | null;
  look: () => Omit<DrawnStroke, 'points'>;
  lying: () => Lying[];
  lasso: Lasso;
  keep: (stroke: DrawnStroke) => void;
  change: (changes: readonly StrokeChange[]) => void;
}

/** What a pen, a mouse or a finger does on a leaf while somebody draws. */
export interface Hand {
  down(event: PointerEvent): void;
  move(event: PointerEvent): void;
  up(event: PointerEvent): void;
  cancel(event: PointerEvent): void;
  /** Where on the layer an event is. */
  place(event: MouseEvent): InkPoint;
}

export function useHand({ layer, canvas, look, lying, lasso, keep, change }: Options): Hand {
  const { hand, penSeen } = useInkTools();
  const fingers = useFingers(() => layer()?.closest('.scroller'));
  /** The stroke in hand, and whose it is. */
  let live: { pointer: number; stroke: DrawnStroke & { points: InkPoint[] }; begun: number } | undefined;
  let erasing: Lying[] | undefined;
  let drawn: LiveCanvas | undefined;

  function place(event: MouseEvent, begun = event.timeStamp): InkPoint {
    const frame = layer()!.getBoundingClientRect();
    const pen = 'pointerType' in event && event.pointerType === 'pen';
    return {
      ...{ x: event.clientX - frame.left, y: event.clientY - frame.top },
      pressure: pen ? penPressure((event as PointerEvent).pressure, (event as PointerEvent).altitudeAngle) : 0.5,
      at: Math.max(0, event.timeStamp - begun) / 1000,
    };
  }

  function stop(): void {
    drawn?.clear();
    live = erasing = drawn = undefined;
  }

  function erase(at: InkPoint): void {
    const hit = erasing!.filter(({ parts }) => parts.some((part) => touches(part, at, ERASER)));
    if (hit.length === 0) return;
    erasing = erasing!.filter((one) => !hit.includes(one));
    change(hit.map(({ remark, stroke }) => ({ remark, stroke, to: [] })));
  }

  function finish(stroke: DrawnStroke): void {
    const [first, last] = [stroke.points[0]!, stroke.points.at(-1)!];
    if (erasing) erase(last);
    else if (hand.value === 'lasso') change(lasso.end(lying()));
    else if (!isShape(stroke.tool)) keep(stroke);
    else if (Math.hypot(last.x - first.x, last.y - first.y) > SMALLEST_SHAPE)
      keep({ ...stroke, points: [first, last] });
  }

  return {
    place: (event) => place(event),
    down(event) {
      if (fingers.down(event, live !== undefined)) {
        // A second finger makes a scroll of what was a stroke; a palm beside a pen does nothing.
        if (live && !penSeen.value) stop();
        return;
      }
      if (event.button !== 0 || live || hand.value === 'label') return;
      event.preventDefault();
      const field = event.currentTarget as HTMLElement;
      field.setPointerCapture(event.pointerId);
      field.focus({ preventScroll: true });
      const at = place(event);
      live = { pointer: event.pointerId, stroke: { ...look(), points: [at] }, begun: event.timeStamp };
      if (hand.value === 'eraser') erasing = lying();
      else if (hand.value === 'lasso') lasso.begin(at);
      else {
        // The field reaches over the free paper beside the leaf, the layer does not.
        drawn = liveCanvas(canvas()!, field);
        drawn.begin();
      }
    },
    move(event) {
      if (fingers.move(event) || event.pointerId !== live?.pointer) return;
      const { begun, stroke } = live;
      const events = event.getCoalescedEvents?.() ?? [];
      const points = (events.length > 0 ? events : [event]).map((one) => place(one, begun));
      if (erasing) return points.forEach(erase);
      if (hand.value === 'lasso') return lasso.move(points.at(-1)!);
      stroke.points.push(...points);
      drawn?.draw(stroke, points.length);
    },
    up(event) {
      if (fingers.up(event) || event.pointerId !== live?.pointer) return;
      finish(live.stroke);
      stop();
    },
    cancel(event) {
      if (!fingers.up(event)) stop();
    },
  };
}
