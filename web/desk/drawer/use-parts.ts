import type { Anchor } from '#core/anchor';
import type { Span } from '#core/audio';
import { mergeWithNext, moveStart, nearestPause, nextPause, partsOf, splitAt, type Part as CorePart } from '#core/talk';
import type { Remark } from '#contract/remarks';
import type { Work } from '#contract/submissions';
import { computedAsync, useManualRefHistory } from '@vueuse/core';
import { computed, ref, shallowRef, watch, type ComputedRef, type Ref, type ShallowRef } from 'vue';
import { soundBlob } from '../../player/media-url.ts';
import { decode, pausesIn } from '../../recorder/sound-work.ts';

/** Seconds. */
const STEP = 0.2;

export interface Part extends CorePart {
  /** It is not to become a remark. */
  thrown?: boolean;
}

export interface Parts {
  /** Undefined until the recording has been looked at. */
  parts: ShallowRef<readonly Part[] | undefined>;
  pauses: ShallowRef<readonly Span[]>;
  problem: Ref<string | undefined>;
  canUndo: ComputedRef<boolean>;
  canRedo: ComputedRef<boolean>;
  undo(): void;
  redo(): void;
  /** Moves the beginning of a part to the pause nearest to a moment. */
  moveTo(index: number, at: number): void;
  /** To the pause before or after; a little where there is none. */
  step(index: number, by: 1 | -1): void;
  merge(index: number): void;
  split(index: number, at: number): void;
  throwAway(index: number, thrown: boolean): void;
  about(index: number, anchor: Anchor): void;
}

/** The remarks that a talk-through would make, and how a teacher mends them. */
export function useParts(remark: () => Remark, work: () => Work): Parts {
  const parts = shallowRef<readonly Part[]>();
  const { undo, redo, canUndo, canRedo, commit, clear } = useManualRefHistory(parts);
  const problem = ref<string>();
  const pauses = shallowRef<readonly Span[]>([]);
  const recording = computed(() => remark().recording!);

  const found = computedAsync(async () => {
    const { sha256 } = recording.value.sound;
    try {
      const { samples, rate } = await decode(await (await soundBlob(recording.value)).arrayBuffer());
      return { sha256, pauses: await pausesIn(samples, rate) };
    } catch {
      problem.value = 'The recording could not be opened. Check the network and try again.';
      return undefined;
    }
  });

  // Words come later than the sound; whoever has mended something by then keeps it.
  watch([found, () => recording.value.transcript], ([sound, transcript]) => {
    if (!sound || canUndo.value) return;
    pauses.value = sound.pauses;
    const { duration } = recording.value.sound;
    const heard = { duration, pauses: sound.pauses, ...(transcript && { words: transcript.words }) };
    parts.value = partsOf(remark().talk ?? [], heard, work().folio);
    commit();
    clear();
  });

  const change = (to: (now: readonly Part[]) => readonly Part[]): void => {
    if (!parts.value) return;
    parts.value = to(parts.value);
    commit();
  };
  const changeOne = (index: number, to: Partial<Part>): void =>
    change((now) => now.map((part, at) => (at === index ? { ...part, ...to } : part)));

  return {
    ...{ parts, pauses, problem, canUndo, canRedo, undo, redo },
    moveTo: (index, at) => change((now) => moveStart(now, index, nearestPause(pauses.value, at))),
    step: (index, by) =>
      change((now) => {
        const at = nextPause(now, index, pauses.value, by) ?? (now[index]?.start ?? 0) + by * STEP;
        return moveStart(now, index, at);
      }),
    merge: (index) => change((now) => mergeWithNext(now, index)),
    split: (index, at) => change((now) => splitAt(now, index, nearestPause(pauses.value, at))),
    throwAway: (index, thrown) => changeOne(index, { thrown }),
    about: (index, anchor) => changeOne(index, { anchor }),
  };
}
