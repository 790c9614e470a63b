import {
  drawOnLines,
  drawOnSurface,
  keepOnSurface,
  keepOnWords,
  linesOfWords,
  type DrawnStroke,
  type PlacedStroke,
  type Stroke,
  type WordBox,
} from '#core/ink';

/** What strokes lie on: between how they are kept and where they are on screen. */
export interface Ground {
  /** @returns undefined where there is nothing to hang it on */
  keep(stroke: DrawnStroke): PlacedStroke | undefined;
  /** @param start of the passage that the remark is about */
  draw(stroke: Stroke, start: number): DrawnStroke[];
}

/** A page, slide or picture. */
export const surfaceGround = (leaf: number, width: number): Ground => ({
  keep: (stroke) => ({ leaf, stroke: keepOnSurface(stroke, width) }),
  draw: (stroke) => [drawOnSurface(stroke, width)],
});

/** Flowing text, whose words may stand elsewhere the next time. */
export function wordsGround(leaf: number, words: readonly WordBox[]): Ground {
  const lines = linesOfWords(words);
  return {
    keep(stroke) {
      const held = keepOnWords(stroke, words);
      return held && { leaf, held };
    },
    draw: (stroke, start) => drawOnLines(stroke, lines, start),
  };
}

/** The words inside of an element as they lie over a layer on it, in pixels. */
export function wordBoxes(root: Element, layer: Element): WordBox[] {
  const origin = layer.getBoundingClientRect();
  const range = document.createRange();
  const boxes: WordBox[] = [];
  for (const element of root.querySelectorAll<HTMLElement>('[data-start]')) {
    const walker = document.createTreeWalker(element, NodeFilter.SHOW_TEXT);
    let at = Number(element.dataset.start);
    for (let node = walker.nextNode() as Text | null; node; node = walker.nextNode() as Text | null) {
      for (const { 0: word, index } of node.data.matchAll(/\S+/gu)) {
        range.setStart(node, index);
        range.setEnd(node, index + word.length);
        const rect = range.getClientRects()[0];
        if (!rect || rect.width === 0) continue;
        boxes.push({
          ...{ start: at + index, end: at + index + word.length },
          ...{ left: rect.left - origin.left, right: rect.right - origin.left },
          ...{ top: rect.top - origin.top, bottom: rect.bottom - origin.top },
        });
      }
      at += node.data.length;
    }
  }
  return boxes;
}
