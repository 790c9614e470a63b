import type { InkTool } from '#core/ink';
import { createEventHook, createGlobalState, useLocalStorage } from '@vueuse/core';
import { ref } from 'vue';

/** What the hand does in the work while somebody draws. */
export type Hand = InkTool | 'eraser' | 'lasso';

/** Pixels at the usual size of a page. */
export const WIDTHS = [2, 4, 7] as const;
/** A highlighter is so much wider than a pen. */
export const HIGHLIGHTER = 5;

/** What one draws with; it is remembered in this browser. */
export const useInkTools = createGlobalState(() => {
  const on = ref(false);
  const hand = useLocalStorage<Hand>('ink-tool', 'pen');
  /** A kind of the margin key, or a plain colour. */
  const colour = useLocalStorage('ink-colour', 'ink');
  const width = useLocalStorage<number>('ink-width', WIDTHS[0]);
  /** Whether a pen has been seen on this device: then a finger scrolls, and a palm does nothing. */
  const penSeen = ref(false);
  /** Whether there is free paper beside the work while somebody draws. */
  const beside = useLocalStorage('ink-beside', false);
  const pinch = createEventHook<1 | -1>();
  const recolour = createEventHook<string>();
  return { on, hand, colour, width, beside, penSeen, pinch, recolour };
});
