import { useResizeObserver } from '@vueuse/core';
import { type Ref } from 'vue';

/** The smallest that can still be read, and how near to the largest that fits is near enough. */
const LEAST = 0.3;
const NEAR = 0.02;

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

/** Makes the letters of a box smaller, by `--fit`, so that all of them fit in. The browser lays it out a few times only: by halving. */
export function fitLetters(box: HTMLElement): void {
  const fits = (fit: number): boolean => {
    box.style.setProperty('--fit', String(fit));
    return heightOfContent(box) <= roomIn(box) + 1;
  };
  if (box.clientHeight === 0 || fits(1)) return box.style.setProperty('--fit', '1');
  let [fit, tooLarge] = [LEAST, 1];
  while (tooLarge - fit > NEAR) {
    const middle = (fit + tooLarge) / 2;
    if (fits(middle)) fit = middle;
    else tooLarge = middle;
  }
  box.style.setProperty('--fit', String(fit));
}

/** Keeps the boxes of a slide that say so at letters that fit, whatever the size of the slide. */
export function useFit(slide: Readonly<Ref<HTMLElement | null>>): void {
  const fit = (): void => slide.value?.querySelectorAll<HTMLElement>('[data-fit]').forEach(fitLetters);
  useResizeObserver(slide, fit);
  // Letters of other fonts may come later and be wider.
  void document.fonts?.ready.then(fit);
}
