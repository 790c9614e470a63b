import type { Anchor } from '#core/anchor';
import { strokeOf, type Box, type DrawnStroke, type PlacedStroke, type WordBox } from '#core/ink';
import type { TalkView } from '#core/talk';
import { getFontEmbedCSS, toCanvas } from 'html-to-image';
import { lineBoxesOf, rangeOf } from '../folio/selection.ts';
import { surfaceGround, wordBoxes, wordsGround, type Ground } from '../ink/ground.ts';
import { holdLines } from './hold-lines.ts';
import { writtenWords, type WrittenWord } from './written-words.ts';

/** A leaf as it was photographed; places in pixels from the upper left corner of the work. */
export interface PhotographedLeaf extends Box {
  picture: HTMLCanvasElement;
  ground: Ground;
  /** All that can be read on it. */
  words: readonly WrittenWord[];
  /** Of its words, where it may be cut between two of them; none where it is a page, slide or picture. */
  lines: readonly Box[];
  /** Where strokes are counted from. */
  origin: { x: number; y: number };
}

/** A work as it was photographed. */
export interface PhotographedWork {
  leaves: readonly PhotographedLeaf[];
  height: number;
  /** Where a passage stands; nothing where it stands nowhere. */
  boxesOf(anchor: Anchor): Box[];
  /** How far down a view is. */
  placeOf(view: TalkView): number;
}

/** How wide a work is photographed, in pixels. */
export const PAPER_WIDTH = 860;

/** Milliseconds in which a page or a picture must be there. */
const PATIENCE = 8000;

/**
 * Photographs the leaves of a work, one after the other.
 * @param sharpness pixels of a photograph for each of the screen
 */
export async function photograph(
  root: HTMLElement,
  { sharpness = 1, onProgress }: { sharpness?: number; onProgress: (share: number) => void },
): Promise<PhotographedWork> {
  await document.fonts.ready;
  const includeStyleProperties = styleNames(root);
  const elements = [...root.querySelectorAll<HTMLElement>('[data-leaf]')];
  // Or the space above its first line, which stands outside of a leaf here, would stand inside of its picture.
  for (const element of elements) element.style.setProperty('display', 'flow-root');
  const fontEmbedCSS = await getFontEmbedCSS(root, { includeStyleProperties });
  // Letters that come with a picture are not always there when a browser draws it for the first time.
  if (elements[0]) await toCanvas(elements[0], { fontEmbedCSS, includeStyleProperties, pixelRatio: 1 });
  const leaves: PhotographedLeaf[] = [];
  for (const [index, element] of elements.entries()) {
    element.scrollIntoView();
    await isDrawn(element);
    holdSizes(element);
    holdLines(element);
    const picture = await toCanvas(element, {
      ...{ fontEmbedCSS, includeStyleProperties, pixelRatio: sharpness },
      // The space between it and the leaf before is not in its box.
      style: { margin: '0' },
    });
    const words = writtenWords(element, root);
    const lines = element.querySelector('.layer') ? [] : words;
    leaves.push({ ...boxOf(element, root), picture, words, lines, ...groundOf(element, index, root) });
    onProgress((index + 1) / elements.length);
  }
  return {
    leaves,
    height: root.scrollHeight,
    boxesOf: (anchor) => boxesOf(root, leaves, anchor),
    placeOf({ leaf, share, offset }) {
      const words = offset === undefined ? undefined : rangeOf(root, { start: offset, end: offset + 1 });
      if (words) return words.getBoundingClientRect().top - root.getBoundingClientRect().top;
      const one = leaves[leaf];
      return one ? one.top + share * (one.bottom - one.top) : 0;
    },
  };
}

/**
 * What is copied of how an element looks. Left to itself, the library makes every size of letters a whole number less a tenth, up to a
 * whole pixel smaller than what was measured; it leaves `font` as it is.
 */
const styleNames = (element: Element): string[] => [
  'font',
  ...Array.from(getComputedStyle(element)).filter((name) => name !== 'font-size'),
];

/** The sizes of letters as they are, also where they cannot be said together with the rest of their font. */
function holdSizes(root: HTMLElement): void {
  const elements = [root, ...root.querySelectorAll<HTMLElement>('*')];
  const sizes = elements.map((element) => getComputedStyle(element).fontSize);
  for (const [index, element] of elements.entries()) element.style.setProperty('font-size', sizes[index]!);
}

/** Waits until a page has its drawing and a picture its pixels; after a while what is there must do. */
async function isDrawn(leaf: HTMLElement): Promise<void> {
  const until = performance.now() + PATIENCE;
  const missing = (): boolean =>
    [...leaf.querySelectorAll('canvas')].some(({ width }) => width === 0) ||
    [...leaf.querySelectorAll('img')].some(({ complete }) => !complete);
  do await new Promise((resolve) => setTimeout(resolve, 60));
  while (missing() && performance.now() < until);
}

function boxOf(element: Element, root: Element): Box {
  const [frame, whole] = [element.getBoundingClientRect(), root.getBoundingClientRect()];
  return {
    left: frame.left - whole.left,
    right: frame.right - whole.left,
    top: frame.top - whole.top,
    bottom: frame.bottom - whole.top,
  };
}

function groundOf(leaf: HTMLElement, index: number, root: Element): Pick<PhotographedLeaf, 'ground' | 'origin'> {
  const surface = leaf.querySelector('.layer');
  const box = boxOf(surface ?? leaf, root);
  const words: WordBox[] = surface ? [] : wordBoxes(leaf, leaf);
  return {
    ground: surface ? surfaceGround(index, box.right - box.left) : wordsGround(index, words),
    origin: { x: box.left, y: box.top },
  };
}

function boxesOf(root: HTMLElement, leaves: readonly PhotographedLeaf[], anchor: Anchor): Box[] {
  if (anchor.type === 'passage') {
    const whole = root.getBoundingClientRect();
    return lineBoxesOf(root, anchor).map(({ left, right, top, bottom }) => ({
      ...{ left: left - whole.left, right: right - whole.left },
      ...{ top: top - whole.top, bottom: bottom - whole.top },
    }));
  }
  if (anchor.type === 'region') {
    const surface = root.querySelector(`[data-leaf="${anchor.leaf}"] .layer`);
    if (!surface) return [];
    const { left, top, right, bottom } = boxOf(surface, root);
    const [width, height] = [right - left, bottom - top];
    return [
      {
        left: left + anchor.x * width,
        top: top + anchor.y * height,
        right: left + (anchor.x + anchor.width) * width,
        bottom: top + (anchor.y + anchor.height) * height,
      },
    ];
  }
  const leaf = 'leaf' in anchor ? leaves[anchor.leaf] : undefined;
  return leaf ? [leaf] : [];
}

/** A stroke where it lies in a photographed work; in as many parts as there are lines to draw it on. */
export function strokeOnPaper({ leaves }: PhotographedWork, placed: PlacedStroke): DrawnStroke[] {
  const start = 'held' in placed ? placed.held.start : 0;
  // Words that were told without a leaf stand on the one that has them.
  for (const leaf of placed.leaf >= 0 ? [leaves[placed.leaf]] : leaves) {
    const drawn = leaf?.ground.draw(strokeOf(placed), start) ?? [];
    if (!leaf || drawn.length === 0) continue;
    const { x, y } = leaf.origin;
    return drawn.map((stroke) => ({
      ...stroke,
      points: stroke.points.map((point) => ({ ...point, x: point.x + x, y: point.y + y })),
    }));
  }
  return [];
}
