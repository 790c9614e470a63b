import { passageAnchor, type Offsets, type PassageAnchor } from '#core/anchor';

/** Every stretch of drawn text with its UTF-16 offset in the canonical text. Numbering and the like have none. */
function* drawnTexts(root: Element): Generator<{ node: Text; start: number }> {
  for (const element of root.querySelectorAll<HTMLElement>('[data-start]')) {
    const start = Number(element.dataset.start);
    const walker = root.ownerDocument.createTreeWalker(element, NodeFilter.SHOW_TEXT);
    let at = start;
    for (let node = walker.nextNode() as Text | null; node; node = walker.nextNode() as Text | null) {
      yield { node, start: at };
      at += node.data.length;
    }
  }
}

/** Where a range on screen lies in the canonical text; undefined where it touches none of it. Inverse of {@link rangeOf}. */
export function offsetsOf(root: Element, range: Range): Offsets | undefined {
  let start: number | undefined;
  let end: number | undefined;
  for (const { node, start: at } of drawnTexts(root)) {
    if (!range.intersectsNode(node)) continue;
    const from = node === range.startContainer ? range.startOffset : 0;
    const to = node === range.endContainer ? range.endOffset : node.data.length;
    if (from >= to) continue;
    start ??= at + from;
    end = at + to;
  }
  return start === undefined || end === undefined ? undefined : { start, end };
}

/** The range on screen that shows a passage of the canonical text; undefined where nothing of it is drawn. */
export function rangeOf(root: Element, { start, end }: Offsets): Range | undefined {
  const range = root.ownerDocument.createRange();
  let begun = false;
  for (const { node, start: at } of drawnTexts(root)) {
    const from = Math.max(start - at, 0);
    const to = Math.min(end - at, node.data.length);
    if (from >= to) continue;
    if (!begun) range.setStart(node, from);
    range.setEnd(node, to);
    begun = true;
  }
  return begun ? range : undefined;
}

/** Edges in the window's pixels. */
export type Edges = Pick<DOMRect, 'left' | 'top' | 'right' | 'bottom'>;

/** Where each line of a passage is drawn: from its first word to its last, without the boxes around them and the spaces at its ends. */
export function lineBoxesOf(root: Element, { start, end }: Offsets): Edges[] {
  const range = root.ownerDocument.createRange();
  const lines: { left: number; top: number; right: number; bottom: number }[] = [];
  for (const { node, start: at } of drawnTexts(root)) {
    const from = Math.max(start - at, 0);
    const part = node.data.slice(from, Math.max(from, end - at));
    for (const { 0: word, index } of part.matchAll(/\S+/gu)) {
      range.setStart(node, from + index);
      range.setEnd(node, from + index + word.length);
      for (const { left, top, right, bottom, width } of range.getClientRects()) {
        const line = lines.at(-1);
        if (width === 0) continue;
        if (line && standsBeside(line, { left, top, right, bottom })) {
          line.left = Math.min(line.left, left);
          line.right = Math.max(line.right, right);
          line.top = Math.min(line.top, top);
          line.bottom = Math.max(line.bottom, bottom);
        } else lines.push({ left, top, right, bottom });
      }
    }
  }
  return lines;
}

/** In the same line, with no more than a space between them. */
function standsBeside(line: Edges, word: Edges): boolean {
  const middle = (word.top + word.bottom) / 2;
  const gap = Math.max(word.left - line.right, line.left - word.right);
  return middle > line.top && middle < line.bottom && gap < line.bottom - line.top;
}

/** The passage that is selected inside of the work, if there is one. */
export function selectedPassage(root: Element, text: string): PassageAnchor | undefined {
  const selection = root.ownerDocument.getSelection();
  if (!selection || selection.isCollapsed || selection.rangeCount === 0) return undefined;
  const offsets = offsetsOf(root, selection.getRangeAt(0));
  return offsets && passageAnchor(text, offsets.start, offsets.end);
}
