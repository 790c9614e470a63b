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

/** The passage that is selected inside of the work, if there is one. */
export function selectedPassage(root: Element, text: string): PassageAnchor | undefined {
  const selection = root.ownerDocument.getSelection();
  if (!selection || selection.isCollapsed || selection.rangeCount === 0) return undefined;
  const offsets = offsetsOf(root, selection.getRangeAt(0));
  return offsets && passageAnchor(text, offsets.start, offsets.end);
}
