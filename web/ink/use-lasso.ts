import { boxAround, isInside, type Box, type DrawnStroke, type Stroke } from '#core/ink';
import { computed, shallowRef, type ComputedRef, type ShallowRef } from 'vue';
import type { StrokeChange } from './inking.ts';
import type { Ground } from './ground.ts';

/** A stroke of a remark, as it lies on this leaf. */
export interface Lying {
  remark: string;
  stroke: Stroke;
  parts: DrawnStroke[];
}

interface Place {
  x: number;
  y: number;
}

/** Pixels around what was chosen, and how near its corner is taken. */
const ROOM = 6;
const CORNER = 14;
const SMALLEST = 0.1;

export interface Lasso {
  loop: ShallowRef<Place[]>;
  chosen: ShallowRef<readonly Lying[]>;
  /** Around what is chosen, where it is being moved to. */
  box: ComputedRef<Box | undefined>;
  /** The chosen strokes, moved. */
  moved: ComputedRef<DrawnStroke[]>;
  begin(at: Place): void;
  move(at: Place): void;
  /** @returns what becomes of the strokes, where they were moved */
  end(lying: readonly Lying[]): StrokeChange[];
  recoloured(colour: string): StrokeChange[];
  erased(): StrokeChange[];
  drop(): void;
}

/** A loop chooses strokes; those that are chosen are dragged, or made larger at their corner. */
export function useLasso(ground: () => Ground | undefined): Lasso {
  const loop = shallowRef<Place[]>([]);
  const chosen = shallowRef<readonly Lying[]>([]);
  const by = shallowRef({ x: 0, y: 0, scale: 1 });
  let from: (Place & { sizing: boolean }) | undefined;

  const still = computed(() => {
    const points = chosen.value.flatMap(({ parts }) => parts.flatMap((part) => part.points));
    return points.length > 0 ? boxAround(points) : undefined;
  });
  const shift = <P extends Place>(point: P): P => {
    const { left, top } = still.value!;
    const { x, y, scale } = by.value;
    return { ...point, x: left + (point.x - left) * scale + x, y: top + (point.y - top) * scale + y };
  };
  const box = computed(() => {
    if (!still.value) return undefined;
    const { left, top, right, bottom } = still.value;
    const around = boxAround([shift({ x: left, y: top }), shift({ x: right, y: bottom })]);
    return {
      ...{ left: around.left - ROOM, top: around.top - ROOM },
      ...{ right: around.right + ROOM, bottom: around.bottom + ROOM },
    };
  });
  const movedPart = (part: DrawnStroke): DrawnStroke => ({
    ...part,
    width: part.width * by.value.scale,
    points: part.points.map(shift),
  });

  function drop(): void {
    loop.value = [];
    chosen.value = [];
    by.value = { x: 0, y: 0, scale: 1 };
  }

  const changes = (change: (part: DrawnStroke) => DrawnStroke): StrokeChange[] =>
    chosen.value.map(({ remark, stroke, parts }) => ({
      ...{ remark, stroke },
      to: parts.flatMap((part) => ground()?.keep(change(part)) ?? []),
    }));

  return {
    ...{ loop, chosen, box, drop },
    moved: computed(() => chosen.value.flatMap(({ parts }) => parts.map(movedPart))),
    begin(at) {
      const around = box.value;
      const near = around && Math.hypot(at.x - around.right, at.y - around.bottom) < CORNER;
      if (around && (near || (at.x > around.left && at.x < around.right && at.y > around.top && at.y < around.bottom)))
        from = { ...at, sizing: near === true };
      else {
        drop();
        loop.value = [at];
      }
    },
    move(at) {
      if (!from) return void (loop.value = [...loop.value, at]);
      const [x, y] = [at.x - from.x, at.y - from.y];
      const { left, right } = still.value!;
      by.value = from.sizing
        ? { x: 0, y: 0, scale: Math.max(SMALLEST, 1 + x / Math.max(1, right - left)) }
        : { x, y, scale: 1 };
    },
    end(lying) {
      const moved = from !== undefined && (by.value.x !== 0 || by.value.y !== 0 || by.value.scale !== 1);
      if (!from) {
        chosen.value = lying.filter(({ parts }) => parts.some((part) => isInside(part, loop.value)));
        loop.value = [];
        return [];
      }
      from = undefined;
      if (!moved) return [];
      const done = changes(movedPart);
      drop();
      return done;
    },
    recoloured: (colour) => changes((part) => ({ ...part, colour })),
    erased: () => chosen.value.map(({ remark, stroke }) => ({ remark, stroke, to: [] })),
  };
}
