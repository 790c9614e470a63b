import { beHere, PRESENCE_SECONDS } from '#contract/presence';
import { useDocumentVisibility, useIntervalFn } from '@vueuse/core';
import { shallowRef, watch, type ShallowRef } from 'vue';
import { call } from '../session/api.ts';

/**
 * Who else is at the desk of the same work.
 * @param onOthers called as long as somebody is, to look at what they have done
 */
export function useOthers(submission: () => string, onOthers: () => void): ShallowRef<string[]> {
  const others = shallowRef<string[]>([]);
  const visible = useDocumentVisibility();

  async function look(): Promise<void> {
    if (visible.value !== 'visible') return;
    const asked = submission();
    const answer = await call(beHere, { params: { submission: asked } }).catch(() => undefined);
    if (asked !== submission()) return;
    others.value = answer?.others ?? [];
    if (others.value.length > 0) onOthers();
  }

  useIntervalFn(look, PRESENCE_SECONDS * 1000);
  watch(
    submission,
    () => {
      others.value = [];
      void look();
    },
    { immediate: true },
  );
  return others;
}
