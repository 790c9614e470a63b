import type { Box } from '#core/ink';

/** A word as it can be read; pixels from the upper left corner of the work. */
export interface WrittenWord extends Box {
  text: string;
}

/** Every word that an element shows, also what is no part of the canonical text, such as the numbers of a list. */
export function writtenWords(element: Element, root: Element): WrittenWord[] {
  const origin = root.getBoundingClientRect();
  const range = element.ownerDocument.createRange();
  const walker = element.ownerDocument.createTreeWalker(element, NodeFilter.SHOW_TEXT);
  const words: WrittenWord[] = [];
  for (let node = walker.nextNode() as Text | null; node; node = walker.nextNode() as Text | null) {
    for (const { 0: text, index } of node.data.matchAll(/\S+/gu)) {
      range.setStart(node, index);
      range.setEnd(node, index + text.length);
      const { left, top, right, bottom, width } = range.getBoundingClientRect();
      if (width === 0) continue;
      words.push({
        ...{ text, left: left - origin.left, right: right - origin.left },
        ...{ top: top - origin.top, bottom: bottom - origin.top },
      });
    }
  }
  return words;
}
