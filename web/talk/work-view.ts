import type { Folio } from '#core/folio';
import type { TalkView } from '#core/talk';
import { offsetsOf, rangeOf } from '../folio/selection.ts';

/** Where in the window somebody reads: this share of its height from the top. */
const READING = 0.4;
/** How far to the right of a line's beginning a word is looked for, in pixels. */
const INTO_LINE = 60;

/** What scrolls the work: an element, or on a phone the page itself. */
export function scrollerOf(root: Element): Element {
  for (let element = root.parentElement; element; element = element.parentElement) {
    const { overflowY } = getComputedStyle(element);
    if (/auto|scroll/.test(overflowY) && element.scrollHeight > element.clientHeight) return element;
  }
  return document.scrollingElement ?? document.documentElement;
}

/** From where to where of the window the work is seen. */
function windowOn(root: Element): { top: number; height: number } {
  const scroller = scrollerOf(root);
  if (scroller === document.scrollingElement) return { top: 0, height: window.innerHeight };
  const { top, height } = scroller.getBoundingClientRect();
  return { top, height };
}

/** What of the work is being read; undefined where none of it is in sight. */
export function viewOf(root: Element, { leaves }: Folio): TalkView | undefined {
  const seen = windowOn(root);
  const y = seen.top + seen.height * READING;
  const elements = [...root.querySelectorAll<HTMLElement>('[data-leaf]')];
  const element = elements.find((one) => one.getBoundingClientRect().bottom > y) ?? elements.at(-1);
  if (!element) return undefined;
  const frame = element.getBoundingClientRect();
  const leaf = Number(element.dataset.leaf);
  const share = Math.round(Math.min(1, Math.max(0, (y - frame.top) / frame.height)) * 1000) / 1000;
  const offset = leaves[leaf]?.kind === 'text' ? offsetAt(root, element, Math.max(y, frame.top + 1)) : undefined;
  return { leaf, share, ...(offset !== undefined && { offset }) };
}

/** The words at a height of the window. */
function offsetAt(root: Element, leaf: Element, y: number): number | undefined {
  const { left, right } = leaf.getBoundingClientRect();
  const caret = document.caretRangeFromPoint?.(Math.min(left + INTO_LINE, right - 1), y);
  if (!caret || !leaf.contains(caret.startContainer)) return undefined;
  const range = document.createRange();
  range.setStart(caret.startContainer, caret.startOffset);
  range.setEndAfter(leaf.lastChild ?? leaf);
  return offsetsOf(root, range)?.start;
}

/** How far down the window a view lies now. */
function placeOf(root: Element, { leaf, share, offset }: TalkView): number | undefined {
  const words = offset === undefined ? undefined : rangeOf(root, { start: offset, end: offset + 1 });
  if (words) return words.getBoundingClientRect().top;
  const frame = root.querySelector(`[data-leaf="${leaf}"]`)?.getBoundingClientRect();
  return frame && frame.top + share * frame.height;
}

/** Brings a view to where it is read; near ones glide, unless somebody wants nothing to move. */
export function goToView(root: Element, view: TalkView): void {
  const place = placeOf(root, view);
  if (place === undefined) return;
  const { top, height } = windowOn(root);
  const by = place - (top + height * READING);
  if (Math.abs(by) < 4) return;
  const glides = Math.abs(by) < height && !matchMedia('(prefers-reduced-motion: reduce)').matches;
  scrollerOf(root).scrollBy({ top: by, behavior: glides ? 'smooth' : 'instant' });
}
