import { nextTick, ref, type Ref } from 'vue';

/** Which ribbon is in focus, and how to lead the eye and the keyboard there. */
export function useRibbonFocus(): { focused: Ref<string | undefined>; focusRibbon: (id: string) => Promise<void> } {
  const focused = ref<string>();

  async function focusRibbon(id: string): Promise<void> {
    focused.value = id;
    await nextTick();
    const ribbon = document.querySelector<HTMLElement>(`[data-remark="${id}"]`);
    ribbon?.focus({ preventScroll: true });
    ribbon?.scrollIntoView({ block: 'nearest', behavior: 'smooth' });
  }

  return { focused, focusRibbon };
}
