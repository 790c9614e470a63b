import { useEventListener } from '@vueuse/core';
import { nextTick, ref, type Ref } from 'vue';

/** A little longer than ribbons take to glide to their places. */
const GLIDE_MILLISECONDS = 240;

/** Which ribbon is in focus, and how to lead the eye and the keyboard there. */
export function useRibbonFocus(): { focused: Ref<string | undefined>; focusRibbon: (id: string) => Promise<void> } {
  const focused = ref<string>();
  let scrolling: ReturnType<typeof setTimeout> | undefined;

  // Nothing moves away from under a hand that has gone on.
  useEventListener(window, ['pointerdown', 'wheel'], () => clearTimeout(scrolling), { capture: true, passive: true });

  async function focusRibbon(id: string): Promise<void> {
    focused.value = id;
    await nextTick();
    const ribbon = document.querySelector<HTMLElement>(`[data-remark="${id}"]`);
    ribbon?.focus({ preventScroll: true });
    clearTimeout(scrolling);
    // By then it stands where its passage is, and most often needs no scrolling.
    scrolling = setTimeout(() => {
      if (focused.value === id) ribbon?.scrollIntoView({ block: 'nearest', behavior: 'smooth' });
    }, GLIDE_MILLISECONDS);
  }

  return { focused, focusRibbon };
}
