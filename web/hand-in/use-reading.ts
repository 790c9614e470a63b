import { readReading, type Reading } from '#contract/assignments';
import { useIntervalFn } from '@vueuse/core';
import { shallowRef, watch, type ShallowRef } from 'vue';
import { call } from '../session/api.ts';

const ASKED_EVERY_MILLISECONDS = 1000;

/** How far the server is in reading what was just handed in, while `waiting`. */
export function useReading(waiting: () => boolean): { reading: ShallowRef<Reading | undefined> } {
  const reading = shallowRef<Reading>();
  const { pause, resume } = useIntervalFn(look, ASKED_EVERY_MILLISECONDS, { immediate: false });

  async function look(): Promise<void> {
    const found = await call(readReading).catch(() => undefined);
    reading.value = waiting() ? (found?.reading ?? undefined) : undefined;
  }

  watch(waiting, (now) => {
    reading.value = undefined;
    if (now) resume();
    else pause();
  });
  return { reading };
}
