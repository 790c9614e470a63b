import type { PassageAnchor } from '#core/anchor';
import { useEventListener } from '@vueuse/core';
import { shallowRef, type ShallowRef } from 'vue';
import { selectedPassage } from './selection.ts';

/** The words that are selected in the work, as they change. */
export function useSelectedPassage(
  root: () => Element | null | undefined,
  text: () => string,
): ShallowRef<PassageAnchor | undefined> {
  const passage = shallowRef<PassageAnchor>();
  useEventListener(document, 'selectionchange', () => {
    const element = root();
    passage.value = element ? selectedPassage(element, text()) : undefined;
  });
  return passage;
}
