import { activeSeconds, pace, type Pace } from '#core/pace';
import type { ClassStates } from '#contract/submissions';
import { createGlobalState, useEventListener, useLocalStorage, useThrottleFn } from '@vueuse/core';
import { computed, shallowReactive, type ComputedRef, type Ref } from 'vue';

/** Whoever does nothing for longer is not at the desk. */
const LONGEST_PAUSE_SECONDS = 90;
const DONE = new Set(['ready', 'returned']);

interface Sitting {
  /** From now on time is spent on this work. */
  visit(submission: string): void;
  /** Somebody is at work, e.g. speaks. */
  busy(): void;
  shown: Ref<boolean>;
  paceOf(students: () => ClassStates['students']): ComputedRef<Pace>;
}

/** How fast the class is marked, since the desk was opened in this page. */
export const usePace = createGlobalState((): Sitting => {
  const moments = shallowReactive(new Map<string, number[]>());
  const shown = useLocalStorage('pace-shown', true);
  let current: string | undefined;

  const note = (): void => {
    if (current === undefined) return;
    moments.set(current, [...(moments.get(current) ?? []), performance.now() / 1000]);
  };
  const busy = useThrottleFn(note, 1000);
  useEventListener(window, ['keydown', 'pointerdown', 'pointermove', 'wheel'], busy, { passive: true });

  return {
    visit(submission) {
      note();
      current = submission;
      note();
    },
    busy,
    shown,
    paceOf: (students) =>
      computed(() => {
        const states = new Map(students().map(({ submission, state }) => [submission, state]));
        const visits = [...moments].flatMap(([submission, times]) => {
          const state = states.get(submission);
          if (!state) return [];
          return [{ submission, seconds: activeSeconds(times, LONGEST_PAUSE_SECONDS), done: DONE.has(state) }];
        });
        const left = students().filter(({ state }) => state !== null && !DONE.has(state)).length;
        return pace(visits, left);
      }),
  };
});
