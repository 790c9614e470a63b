import { nextTick, ref, type Ref } from 'vue';

/** A little longer than ribbons take to glide to their places. */
const GLIDE_MILLISECONDS = 400;

/** Which ribbon is in focus, and how to lead the eye and the keyboard there. */
export function useRibbonFocus(): { focused: Ref<string | undefined>; focusRibbon: (id: string) => Promise<void> } {
  const focused = ref<string>();

  async function focusRibbon(id: string): Promise<void> {
    focused.value = id;
    await nextTick();
    const ribbon = document.querySelector<HTMLElement>(`[data-remark="${id}"]`);
    ribbon?.focus({ preventScroll: true });
    ribbon?.scrollIntoView({ block: 'nearest', behavior: 'smooth' });
    // By now it stands where its passage is.
    setTimeout(() => {
      if (focused.value === id) ribbon?.scrollIntoView({ block: 'nearest', behavior: 'smooth' });
    }, GLIDE_MILLISECONDS);
  }

  return { focused, focusRibbon };
}
