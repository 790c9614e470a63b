/**
 * Fixes the line breaks of an element where they are now, so that a picture of it breaks its lines in the same places. (The picture
 * has a layout of its own, with widths that differ by fractions of a pixel.)
 */
export function holdLines(root: HTMLElement): void {
  const breaks = breaksIn(root);
  // From the end, so that earlier offsets stay true.
  for (const { node, offset } of breaks.reverse()) {
    const next = offset > 0 ? node.splitText(offset) : node;
    next.before(root.ownerDocument.createElement('br'));
  }
  for (const element of [root, ...root.querySelectorAll<HTMLElement>('*')])
    element.style.setProperty('text-wrap-mode', 'nowrap');
}

interface Break {
  node: Text;
  /** UTF-16 offset of the first letter of a new line. */
  offset: number;
}

/** Two letters stand on different lines when one begins where the other has ended, less so much. */
const OVERLAP = 2;

function breaksIn(root: HTMLElement): Break[] {
  const walker = root.ownerDocument.createTreeWalker(root, NodeFilter.SHOW_TEXT);
  const range = root.ownerDocument.createRange();
  const breaks: Break[] = [];
  let last: { bottom: number; block: Element | null } | undefined;
  for (let node = walker.nextNode() as Text | null; node; node = walker.nextNode() as Text | null) {
    const block = blockOf(node);
    for (const { letter, offset } of lettersOf(node.data)) {
      range.setStart(node, offset);
      range.setEnd(node, offset + letter.length);
      const [rect] = range.getClientRects();
      if (!rect || rect.width === 0) continue;
      if (last?.block === block && rect.top >= last.bottom - OVERLAP && !/\s/u.test(letter))
        breaks.push({ node, offset });
      if (!/\s/u.test(letter)) last = { bottom: rect.bottom, block };
    }
  }
  return breaks.filter(({ node, offset }) => !followsBreak(node, offset));
}

function* lettersOf(text: string): Generator<{ letter: string; offset: number }> {
  let offset = 0;
  for (const letter of text) {
    yield { letter, offset };
    offset += letter.length;
  }
}

/** The element whose lines a text stands in. */
function blockOf(node: Text): Element | null {
  let element = node.parentElement;
  while (element && getComputedStyle(element).display === 'inline') element = element.parentElement;
  return element;
}

/** The line was broken by the text itself. */
const followsBreak = (node: Text, offset: number): boolean =>
  offset > 0 ? node.data[offset - 1] === '\n' : node.previousSibling?.nodeName === 'BR';
