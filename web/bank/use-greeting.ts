import { readGreetings, type Greeting } from '#contract/bank';
import type { Recording } from '#contract/recordings';
import { createGlobalState } from '@vueuse/core';
import { computed, ref, shallowRef, watch, type ComputedRef, type Ref } from 'vue';
import { recordingOf } from '../feedback/changes/recorded.ts';
import { canRender } from '../recorder/sound-work.ts';
import { useSpokenTake } from '../recorder/use-spoken-take.ts';
import { call } from '../session/api.ts';
import { GREETING_TAKE } from './greeting-take.ts';
import { useBankActions } from './use-bank-actions.ts';

/** Whether banked remarks begin with a greeting; as long as the page is open. */
const useGreets = createGlobalState(() => ref(false));

/** Greetings of a course, those included that are on their way. */
const useCourseGreetings = createGlobalState(() => shallowRef<{ course: string; greetings: Greeting[] }>());

export interface GreetingHere {
  /** Whether it is to be put before what is dropped. */
  wanted: Ref<boolean>;
  /** What greets this student; undefined where nothing was spoken yet. */
  recording: ComputedRef<Recording | undefined>;
  /** Whether this browser can join sounds. */
  possible: boolean;
  speaking: Ref<boolean>;
  /** Records until `hush`, and keeps it for this student. */
  speak(): Promise<void>;
  hush(): void;
}

/** The greeting to one student: kept once, or spoken on the spot. */
export function useGreeting(course: () => string, student: () => { id: string; name: string }): GreetingHere {
  const actions = useBankActions();
  const all = useCourseGreetings();

  watch(
    course,
    async (id) => {
      const greetings = await call(readGreetings, { params: { course: id } }).catch(() => undefined);
      if (greetings && course() === id) all.value = { course: id, greetings: withPending(greetings) };
    },
    { immediate: true },
  );

  /** What was spoken a moment ago may be on its way still. */
  const withPending = (greetings: readonly Greeting[]): Greeting[] =>
    greetings.map((one) =>
      one.recording ? one : (all.value?.greetings.find(({ student: who }) => who === one.student) ?? one),
    );

  const { speaking, speak, hush } = useSpokenTake(
    GREETING_TAKE,
    course,
    async ({ id, sound, edit }, { student: who }) => {
      const [place, { name }] = [course(), student()];
      const recording = { id, sound, edit, draft: null };
      await actions.greet(place, who, recording);
      const shown = { student: who, name, recording: recordingOf(recording, new Date().toISOString()) };
      const others = (all.value?.greetings ?? []).filter((one) => one.student !== who);
      all.value = { course: place, greetings: [...others, shown] };
    },
  );

  async function greet(): Promise<void> {
    if (await speak({ student: student().id })) wanted.value = true;
  }

  const wanted = useGreets();
  return {
    ...{ wanted, speaking, hush },
    speak: greet,
    possible: canRender(),
    recording: computed(() => all.value?.greetings.find((one) => one.student === student().id)?.recording ?? undefined),
  };
}
