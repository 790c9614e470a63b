import { createGlobalState, useEventListener } from '@vueuse/core';

/** Whether a button of the mouse, a pen or a finger is down: until it is up and its click has been heard. */
export const usePressing = createGlobalState((): { isPressing: () => boolean } => {
  let pressing = false;
  useEventListener(window, 'pointerdown', () => (pressing = true), { capture: true });
  // The click comes right behind.
  useEventListener(window, ['pointerup', 'pointercancel'], () => setTimeout(() => (pressing = false)));
  return { isPressing: () => pressing };
});
