import { useElementSize, useEventListener } from '@vueuse/core';
import { computed, nextTick, onMounted, shallowRef, watch, type ComputedRef } from 'vue';
import { surfaceGround, wordBoxes, wordsGround, type Ground } from './ground.ts';

interface Options {
  layer: () => HTMLElement | null;
  index: () => number;
  /** Whether strokes hang on the words of this leaf. */
  onWords: () => boolean;
  /** Whether anything is drawn here, or may be. */
  needed: () => boolean;
  /** Changes with whatever may move the words. */
  layout: () => unknown;
}

/** What the strokes of a leaf lie on; on flowing text it is measured again whenever the words may have moved. */
export function useGround({ layer, index, onWords, needed, layout }: Options): ComputedRef<Ground | undefined> {
  const { width, height } = useElementSize(layer);
  const measured = shallowRef<Ground>();

  async function measure(): Promise<void> {
    if (!onWords() || !needed()) return;
    await nextTick();
    const over = layer();
    const root = over?.closest('[data-leaf]');
    if (over && root) measured.value = wordsGround(index(), wordBoxes(root, over));
  }
  watch([width, height, needed, layout], measure);
  onMounted(() => void document.fonts?.ready.then(measure));
  // The words of a wide table move under its own scrollbar.
  useEventListener(() => layer()?.parentElement, 'scroll', measure, { capture: true, passive: true });

  const surface = computed(() => (width.value > 0 ? surfaceGround(index(), width.value) : undefined));
  return computed(() => (onWords() ? measured.value : surface.value));
}
