import { useResizeObserver } from '@vueuse/core';
import { type Ref } from 'vue';

/** How much smaller at each try, and the smallest that can still be read. */
const STEP = 0.04;
const LEAST = 0.3;

/** How high what stands in a box is, from the first to the last, whether or not it fits in. */
function heightOfContent(box: HTMLElement): number {
  const parts = [...box.children].filter((part): part is HTMLElement => part instanceof HTMLElement);
  const [first, last] = [parts[0], parts.at(-1)];
  return first && last ? last.offsetTop + last.offsetHeight - first.offsetTop : 0;
}

function roomIn(box: HTMLElement): number {
  const { paddingTop, paddingBottom } = getComputedStyle(box);
  return box.clientHeight - parseFloat(paddingTop) - parseFloat(paddingBottom);
}

/** Makes the letters of a box smaller, by `--fit`, until all of them fit in. */
export function fitLetters(box: HTMLElement): void {
  box.style.setProperty('--fit', '1');
  const room = roomIn(box);
  if (room <= 0) return;
  for (let fit = 1 - STEP; fit >= LEAST && heightOfContent(box) > room + 1; fit -= STEP)
    box.style.setProperty('--fit', fit.toFixed(2));
}

/** Keeps the boxes of a slide that say so at letters that fit, whatever the size of the slide. */
export function useFit(slide: Readonly<Ref<HTMLElement | null>>): void {
  const fit = (): void => slide.value?.querySelectorAll<HTMLElement>('[data-fit]').forEach(fitLetters);
  useResizeObserver(slide, fit);
  // Letters of other fonts may come later and be wider.
  void document.fonts?.ready.then(fit);
}
