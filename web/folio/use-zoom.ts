import { useElementSize, useLocalStorage } from '@vueuse/core';
import { computed, type ComputedRef, type Ref } from 'vue';

/** `width` and `page` fit the larger leaves into the window; a number is a share of the width. */
export type Zoom = 'width' | 'page' | number;

export const ZOOM_STEPS = [0.5, 0.67, 0.8, 1, 1.25, 1.5, 2, 3] as const;
const TEXT_STEPS = [0.85, 1, 1.25, 1.5, 1.75, 2] as const;
/** What pages usually are: the height of A4 by its width (ISO 216). */
const USUAL_RATIO = 1.414;

export interface FolioZoom {
  zoom: Readonly<Ref<Zoom>>;
  textZoom: Readonly<Ref<number>>;
  /** Width of pages, slides and pictures as CSS. */
  leafWidth: ComputedRef<string>;
  /** One step larger or smaller, letters and pages alike. */
  step(by: 1 | -1, what: 'text' | 'leaf'): void;
  fit(what: 'width' | 'page'): void;
}

/** How large the work is shown; remembered in this browser. */
export function useZoom(scroller: Ref<HTMLElement | null>, column: Ref<HTMLElement | null>): FolioZoom {
  const zoom = useLocalStorage<Zoom>('zoom', 'width', {
    serializer: {
      read: (value) => (value === 'width' || value === 'page' ? value : Number(value) || 'width'),
      write: String,
    },
  });
  const textZoom = useLocalStorage('text-zoom', 1);
  const { height } = useElementSize(scroller);
  const { width } = useElementSize(column);

  const fittingPage = computed(() => Math.min(1, (height.value - 70) / (USUAL_RATIO * width.value || 1)) || 1);
  const leafWidth = computed(() => {
    if (zoom.value === 'width') return '100%';
    const share = zoom.value === 'page' ? Math.max(0.2, fittingPage.value) : zoom.value;
    return `${Math.round(share * 1000) / 10}%`;
  });

  function step(by: 1 | -1, what: 'text' | 'leaf'): void {
    if (what === 'text') textZoom.value = neighbour(TEXT_STEPS, textZoom.value, by);
    else
      zoom.value = neighbour(
        ZOOM_STEPS,
        typeof zoom.value === 'number' ? zoom.value : parseFloat(leafWidth.value) / 100,
        by,
      );
  }

  return { zoom, textZoom, leafWidth, step, fit: (what) => (zoom.value = what) };
}

function neighbour(steps: readonly number[], from: number, by: 1 | -1): number {
  const beyond = by === 1 ? steps.find((step) => step > from + 0.01) : steps.findLast((step) => step < from - 0.01);
  return beyond ?? from;
}
