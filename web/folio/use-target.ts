import type { Anchor, PassageAnchor } from '#core/anchor';
import type { Folio } from '#core/folio';
import { useEventListener } from '@vueuse/core';
import { computed, shallowRef, type ComputedRef, type ShallowRef } from 'vue';
import { selectedPassage } from './selection.ts';

export interface Target {
  /** What will be spoken about: the selected words, or the box, stretch, cells or answer that is chosen. */
  target: ComputedRef<Anchor | undefined>;
  /** The same, but without the words. */
  chosen: ShallowRef<Anchor | undefined>;
  /** As of this moment: browsers tell of a new selection late. */
  now(): Anchor | undefined;
  choose(anchor: Anchor | undefined): void;
  clear(): void;
}

/** What is selected in the work. Words and everything else exclude each other. */
export function useTarget(root: () => Element | null | undefined, folio: () => Folio | undefined): Target {
  const passage = shallowRef<PassageAnchor>();
  const chosen = shallowRef<Anchor>();

  const selected = (): PassageAnchor | undefined => {
    const [element, work] = [root(), folio()];
    return element && work ? selectedPassage(element, work.text) : undefined;
  };

  useEventListener(document, 'selectionchange', () => {
    passage.value = selected();
    if (passage.value) chosen.value = undefined;
  });

  function choose(anchor: Anchor | undefined): void {
    // Words that were recognised in a picture stay selected, so that they can be copied.
    if (anchor && selected()) document.getSelection()?.removeAllRanges();
    passage.value = undefined;
    chosen.value = anchor;
  }

  return {
    target: computed(() => passage.value ?? chosen.value),
    chosen,
    now: () => selected() ?? chosen.value,
    choose,
    clear: () => {
      document.getSelection()?.removeAllRanges();
      choose(undefined);
    },
  };
}
