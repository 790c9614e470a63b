import { correction } from '#core/talk';
import { useRafFn } from '@vueuse/core';
import { watch } from 'vue';
import type { Along } from './performance.ts';

/** Keeps a recording in time with the talk-through that it plays along with. */
export function useInTime(media: () => HTMLMediaElement | null, along: () => Along | undefined): void {
  const loop = useRafFn(
    () => {
      const [element, now] = [media(), along()];
      if (!element || !now?.playing || element.seeking || element.paused) return;
      const next = correction(element.currentTime - now.position());
      if (next.jump) element.currentTime = now.position();
      else element.playbackRate = now.rate * next.pace;
    },
    { immediate: false },
  );

  watch(along, (now, before) => {
    const element = media();
    if (!element) return;
    element.muted = now?.muted ?? false;
    if (now?.playing) {
      if (element.paused) {
        element.currentTime = now.position();
        void element.play().catch(() => undefined);
      }
      loop.resume();
    } else if (before?.playing) {
      loop.pause();
      element.pause();
      element.playbackRate = 1;
    }
  });
}
