import type { Anchor } from '#core/anchor';
import type { Folio } from '#core/folio';
import { strokeOf, type PlacedStroke, type Stroke } from '#core/ink';
import { apart, strokeSeconds, type TalkEvent, type TalkView } from '#core/talk';
import { LARGEST_TRACK_INK, MOST_EVENTS } from '#contract/talk';
import { refDebounced, useEventListener, useThrottleFn } from '@vueuse/core';
import { computed, ref, shallowRef, watch, type ComputedRef } from 'vue';
import { aboutOf } from '../recorder/take-kind.ts';
import { useRecorder } from '../recorder/use-recorder.ts';
import { viewOf } from '../talk/work-view.ts';
import { REMARK_TAKE } from './voice/remark-take.ts';

/** Milliseconds after which a choice counts as made, and between two looks at what is in sight. */
const CHOSEN_AFTER = 200;
const LOOK_EVERY = 250;
/** A view that has moved by less is the same: a share of the leaf, or characters. */
const SAME_SHARE = 0.01;
const SAME_CHARACTERS = 40;

/** Readings of two clocks, to tell how far they are apart, and milliseconds between them. */
const READINGS = 15;
const COMPARE_EVERY = 30;
/** Milliseconds between two such comparisons, and the seconds that clocks may have moved apart since the last. */
const COMPARE_AGAIN = 1500;
const MOVED = 0.01;
/** Seconds from the microphone to the recorder: the browser hands a stream on in pieces of 10 ms. Measured by `e2e/over.spec.ts`. */
const ON_THE_WAY = 0.024;

interface Options {
  submission: () => string;
  folio: () => Folio | undefined;
  root: () => Element | null;
  target: () => Anchor | undefined;
  kind: () => string;
}

export interface Talking {
  /** Whether a talk-through is being recorded. */
  on: ComputedRef<boolean>;
  /** What was drawn in it so far and not rubbed out. */
  strokes: ComputedRef<readonly PlacedStroke[]>;
  /** How many passages it went through. */
  passages: ComputedRef<number>;
  note(event: Unstamped): void;
  /** Draws into it; false where it holds no more. */
  draw(placed: PlacedStroke): boolean;
  /** The student's recording plays, or does not any more. */
  begun(leaf: number, position: () => number): void;
  halted(): void;
  /** Puts others in the place of a stroke. */
  change(stroke: Stroke, to: readonly PlacedStroke[]): void;
}

type Unstamped = TalkEvent extends infer Event ? (Event extends TalkEvent ? Omit<Event, 'at'> : never) : never;

/** Notes what is done at the desk while somebody talks the work through. */
export function useTalking({ submission, folio, root, target, kind }: Options): Talking {
  const recorder = useRecorder();
  const on = computed(
    () =>
      recorder.purpose.value?.place === submission() &&
      aboutOf(REMARK_TAKE, recorder.purpose.value)?.talk === true &&
      (recorder.status.value === 'recording' || recorder.status.value === 'paused'),
  );
  const noted = shallowRef<readonly TalkEvent[]>([]);
  const drawn = computed(() => noted.value.flatMap((event) => (event.type === 'stroke' ? [event.placed] : [])));
  const strokes = computed(() => {
    const gone = new Set(noted.value.map((event) => (event.type === 'erase' ? event.stroke : -1)));
    return drawn.value.filter((_, index) => !gone.has(index));
  });
  const passages = computed(() => noted.value.filter(({ type }) => type === 'select').length);
  let seen: TalkView | undefined;
  let chosen = '';

  function noteAt(at: number, event: Unstamped): void {
    if (!on.value || noted.value.length >= MOST_EVENTS) return;
    const stamped = { ...event, at: Math.round(Math.max(0, at) * 1000) / 1000 } as TalkEvent;
    noted.value = [...noted.value, stamped];
    recorder.note(stamped);
  }
  const note = (event: Unstamped): void => noteAt(recorder.moment(), event);

  function look(): void {
    const [element, work] = [root(), folio()];
    const now = on.value && element && work ? viewOf(element, work) : undefined;
    if (!now || (seen && isSame(seen, now))) return;
    seen = now;
    note({ type: 'view', ...now });
  }
  useEventListener(window, 'scroll', useThrottleFn(look, LOOK_EVERY, true), { capture: true, passive: true });
  useEventListener(window, 'resize', look);

  watch(on, (begins) => {
    noted.value = [];
    seen = undefined;
    chosen = '';
    if (!begins) return;
    noteAt(0, { type: 'kind', kind: kind() });
    look();
    choose(target());
  });
  watch(kind, (now) => note({ type: 'kind', kind: now }));

  function choose(anchor: Anchor | undefined): void {
    const now = JSON.stringify(anchor);
    if (!on.value || !anchor || now === chosen) return;
    chosen = now;
    note({ type: 'select', anchor });
  }
  // What is selected while the hand still drags is no choice yet, however slowly it goes.
  const pressed = ref(false);
  useEventListener(window, 'pointerdown', () => (pressed.value = true), { capture: true });
  useEventListener(window, ['pointerup', 'pointercancel'], () => (pressed.value = false), { capture: true });
  const settled = computed(() => (pressed.value ? undefined : target()));
  watch(refDebounced(settled, CHOSEN_AFTER), choose);

  function draw(placed: PlacedStroke): boolean {
    const held = drawn.value.reduce((sum, one) => sum + strokeOf(one).points.length, 0);
    if (!on.value || held + strokeOf(placed).points.length > LARGEST_TRACK_INK) return false;
    noteAt(recorder.moment() - strokeSeconds(placed), { type: 'stroke', placed });
    return true;
  }

  /** The student's recording while it plays, the clocks that are being compared, and what was noted of them last. */
  let performing: { leaf: number; readings: [number, number][]; apart: number } | undefined;

  /** No two clocks run alike for long, and a busy machine may hold one up: they are compared as long as both run. */
  function begun(leaf: number, position: () => number): void {
    settle();
    performing = undefined;
    if (!on.value) return;
    const now = { leaf, readings: [] as [number, number][], apart: Infinity };
    performing = now;
    const read = (): void => {
      if (performing !== now || !on.value) return;
      now.readings.push([recorder.moment(), position()]);
      const enough = now.readings.length === READINGS;
      if (enough) settle();
      setTimeout(read, enough ? COMPARE_AGAIN : COMPARE_EVERY);
    };
    read();
  }

  function settle(): void {
    const first = performing?.readings[0];
    if (!performing || !first) return;
    const now = apart(performing.readings);
    const few = performing.readings.length < READINGS && performing.apart < Infinity;
    performing.readings = [];
    if (few || Math.abs(now - performing.apart) < MOVED) return;
    performing.apart = now;
    noteAt(first[1] + now + ON_THE_WAY, { type: 'perform', leaf: performing.leaf, from: first[1] });
  }

  function halted(): void {
    settle();
    performing = undefined;
    if (on.value) note({ type: 'halt' });
  }

  return {
    ...{ on, strokes, passages, note, draw, begun, halted },
    change(stroke, to) {
      const index = drawn.value.findIndex((one) => strokeOf(one).points === stroke.points);
      if (index >= 0) note({ type: 'erase', stroke: index });
      for (const placed of to) noteAt(recorder.moment(), { type: 'stroke', placed });
    },
  };
}

function isSame(a: TalkView, b: TalkView): boolean {
  if (a.leaf !== b.leaf) return false;
  if (a.offset !== undefined && b.offset !== undefined) return Math.abs(a.offset - b.offset) < SAME_CHARACTERS;
  return Math.abs(a.share - b.share) < SAME_SHARE;
}
