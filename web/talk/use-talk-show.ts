import { strokeOf, type PlacedStroke } from '#core/ink';
import { isSeen, lastBefore, timelineOf, type Timeline } from '#core/talk';
import type { Remark } from '#contract/remarks';
import { useEventListener } from '@vueuse/core';
import { computed, onScopeDispose, provide, ref, watch, watchEffect, type ComputedRef, type Ref } from 'vue';
import { PERFORMANCE, type Along, type PerformancePart } from '../folio/performance.ts';
import { SHOWN_INK, type ShownStroke } from '../ink/shown-ink.ts';
import type { MarginEntry } from '../margin/entries.ts';
import { recordingUrl } from '../player/media-url.ts';
import { usePlayer } from '../player/player.ts';
import { goToView, scrollerOf } from './work-view.ts';

/** Whoever presses a passage wants to hear how it was begun, so many seconds before. */
const RUN_UP = 1;
const PASSAGE = 'talked about ';

/** Voice and performance together, or one of them alone. */
export type Mix = 'both' | 'voice' | 'performance';

export interface TalkShow {
  /** The talk-through that is in hand, or being heard. */
  remark: ComputedRef<Remark | undefined>;
  timeline: ComputedRef<Timeline | undefined>;
  /** Whether it is the one in the player. */
  playing: ComputedRef<boolean>;
  /** Its passages as marks on the work, and the one that is spoken about. */
  marks: ComputedRef<readonly MarginEntry[]>;
  lit: ComputedRef<string | undefined>;
  /** Which is heard, where the student's recording plays along. */
  mix: Readonly<Ref<Mix>>;
  hear(mix: Mix): void;
  /** Whether the page goes to what is spoken about; scrolling by oneself ends it. */
  following: Readonly<Ref<boolean>>;
  follow(): void;
  /** Plays from a passage that was pressed; false where it is none. */
  pick(mark: string): boolean;
  playFrom(seconds: number): void;
}

interface Options {
  remarks: () => readonly Remark[];
  focused: () => string | undefined;
  root: () => Element | null;
  /** What a teacher does with the student's recording. */
  performing?: Omit<PerformancePart, 'along' | 'leave'>;
  /** Strokes of one that is being made. */
  live?: ComputedRef<readonly PlacedStroke[]>;
}

const shownStroke = (placed: PlacedStroke, key: number): Omit<ShownStroke, 'until'> => ({
  ...{ key, leaf: placed.leaf, ink: [strokeOf(placed)] },
  start: 'held' in placed ? placed.held.start : undefined,
});

const drawnNow = new WeakMap<PlacedStroke, ShownStroke>();
let strokesDrawn = 0;

/** A stroke that was just drawn: always the same, so that the next one does not draw it anew. */
function liveStroke(placed: PlacedStroke): ShownStroke {
  const before = drawnNow.get(placed);
  if (before) return before;
  const now = { ...shownStroke(placed, strokesDrawn++), until: undefined };
  drawnNow.set(placed, now);
  return now;
}

/** Shows a talk-through on the work: the page follows, strokes grow as they were drawn, passages light up. */
export function useTalkShow({ remarks, focused, root, performing, live }: Options): TalkShow {
  const player = usePlayer();
  const remark = computed(() => {
    const talks = remarks().filter(({ talk }) => talk);
    return (
      talks.find(({ recording }) => recording && recording.id === player.current.value) ??
      talks.find(({ id }) => id === focused())
    );
  });
  const timeline = computed(() => (remark.value?.talk ? timelineOf(remark.value.talk) : undefined));
  const playing = computed(() => remark.value?.recording?.id === player.current.value && remark.value !== undefined);
  /** Seconds; where it is not being played all of it is shown. */
  const moment = computed(() => {
    const begun = playing.value && (player.playing.value || player.position.value > 0);
    return begun ? player.position.value : Infinity;
  });

  const kept = computed(() =>
    (timeline.value?.strokes ?? []).map((timed, key) => ({ timed, shown: shownStroke(timed.placed, key) })),
  );
  /** All of them, so that none has to be made anew when somebody jumps; those in the same state are the same as before. */
  const strokes = computed((before?: readonly ShownStroke[]): readonly ShownStroke[] => {
    if (live && live.value.length > 0) return live.value.map(liveStroke);
    const now = moment.value;
    const all = kept.value.map(({ timed, shown }, index): ShownStroke => {
      const until = !isSeen(timed, Math.min(now, Number.MAX_VALUE))
        ? -1
        : now < timed.drawn
          ? now - timed.at
          : undefined;
      const old = before?.[index];
      return old && old.ink[0] === shown.ink[0] && old.until === until ? old : { ...shown, until };
    });
    return before?.length === all.length && all.every((one, index) => one === before[index]) ? before : all;
  });
  provide(SHOWN_INK, {
    strokes,
    pick: (key) => {
      const stroke = timeline.value?.strokes[key];
      if (stroke) playFrom(stroke.at - RUN_UP / 2);
    },
  });

  const said = computed(() => {
    const passages = timeline.value?.passages ?? [];
    return moment.value === Infinity ? passages.length : passages.filter(({ at }) => at <= moment.value).length;
  });
  const marks = computed((): readonly MarginEntry[] =>
    (timeline.value?.passages ?? [])
      .slice(0, said.value)
      .map(({ anchor, kind }, index) => ({ id: PASSAGE + index, kind: kind ?? remark.value!.kind, anchor })),
  );
  const lit = computed(() => (moment.value === Infinity || said.value === 0 ? undefined : PASSAGE + (said.value - 1)));

  const following = ref(true);
  const view = computed(() =>
    moment.value === Infinity ? undefined : lastBefore(timeline.value!.views, moment.value),
  );
  watch([view, following, () => player.playing.value], ([now, follows]) => {
    const element = root();
    if (now && follows && element) goToView(element, now);
  });
  watch(
    () => player.playing.value && playing.value,
    (begins) => begins && (following.value = true),
  );
  const leaves = ({ target }: Event): void => {
    const element = root();
    if (playing.value && element && scrollerOf(element).contains(target as Node)) following.value = false;
  };
  useEventListener(window, ['wheel', 'touchmove'], leaves, { passive: true });
  useEventListener(window, 'keydown', (event) => {
    if (/^(Page(Up|Down)|Home|End)$/.test(event.key)) leaves(event);
  });

  const mix = ref<Mix>('both');
  watchEffect(() => (player.element.muted = playing.value && mix.value === 'performance'));
  onScopeDispose(() => (player.element.muted = false));
  const along = (leaf: number): ComputedRef<Along | undefined> => {
    // While it goes on, nothing of it changes from frame to frame.
    const now = computed(() =>
      playing.value
        ? lastBefore(
            timeline.value!.performances.filter((one) => one.leaf === leaf),
            player.position.value,
          )
        : undefined,
    );
    const on = computed(() => (now.value && player.position.value < now.value.until ? now.value : undefined));
    return computed(
      () =>
        on.value && {
          position: () => on.value!.from + player.element.currentTime - on.value!.at,
          playing: player.playing.value,
          rate: player.rate.value,
          muted: mix.value === 'voice',
        },
    );
  };
  provide(PERFORMANCE, { ...performing, along, leave: player.stop });

  function playFrom(seconds: number): void {
    const recording = remark.value?.recording;
    if (!recording) return;
    following.value = true;
    void player.playFrom(recording.id, recordingUrl(recording), Math.max(0, seconds));
  }

  return {
    ...{ remark, timeline, playing, marks, lit, mix, following, playFrom },
    hear: (what) => void (mix.value = what),
    follow: () => void (following.value = true),
    pick(mark) {
      if (!mark.startsWith(PASSAGE)) return false;
      const passage = timeline.value?.passages[Number(mark.slice(PASSAGE.length))];
      if (passage) playFrom(passage.at - RUN_UP);
      return true;
    },
  };
}
