import type { Document, Element, Node } from '@xmldom/xmldom';
import { attribute, child, children, descendants, elements } from './xml.ts';

/*
 * The library that reads text documents drops some elements with all their words, and glues others together. They are put here
 * into words that it keeps (ECMA-376 Part 1, section 17).
 */

/** Changes a part of a document so that the library keeps all its words. Tracked changes are accepted (section 17.13.5). */
export function mendDocx(document: Document): void {
  for (const name of ['del', 'moveFrom'])
    for (const struck of descendants(document, name)) if (!isOfMark(struck)) remove(struck);
  for (const name of ['fldSimple', 'dir', 'bdo']) for (const element of descendants(document, name)) unwrap(element);
  for (const ruby of descendants(document, 'ruby')) replaceBy(ruby, elements(child(ruby, 'rubyBase')));
  for (const element of descendants(document, 'cr')) rename(element, 'br');
  for (const element of descendants(document, 'ptab')) rename(element, 'tab');
  for (const element of descendants(document, 'br')) if (attribute(element, 'type')) mendBreak(element);
  for (const box of descendants(document, 'txbxContent')) if (isInChoiceAlone(box)) moveBehind(box);
}

/** The mark of a paragraph or a row of a table was struck, of which the library takes care. */
const isOfMark = (struck: Element): boolean => ['rPr', 'trPr'].includes((struck.parentNode as Element).localName ?? '');

/** Whether the mark at the end of a paragraph was struck: it goes on in the next. */
export const isJoined = (paragraph: Element): boolean =>
  child(child(child(paragraph, 'pPr'), 'rPr'), 'del') !== undefined;

const remove = (element: Element): void => void element.parentNode?.removeChild(element);

function replaceBy(element: Element, nodes: readonly Node[]): void {
  for (const node of nodes) element.parentNode!.insertBefore(node, element);
  remove(element);
}

const unwrap = (element: Element): void =>
  replaceBy(
    element,
    Array.from(element.childNodes).filter(({ localName }) => !/Pr$/u.test(localName ?? '')),
  );

function rename(element: Element, name: string): void {
  const other = element.ownerDocument!.createElementNS(element.namespaceURI, `${element.prefix}:${name}`);
  element.parentNode!.replaceChild(other, element);
}

/** The end of a page or column within a sentence parts two words; at either end of a paragraph it is nothing. */
function mendBreak(element: Element): void {
  const run = element.parentNode as Element;
  const text = (from: Node, step: 'previousSibling' | 'nextSibling'): string => {
    let found = '';
    for (let node = from[step]; node; node = node[step]) found += node.textContent ?? '';
    return found;
  };
  const before = text(element, 'previousSibling') + text(run, 'previousSibling');
  const after = text(element, 'nextSibling') + text(run, 'nextSibling');
  if (before.trim() === '' || after.trim() === '') remove(element);
  else rename(element, 'br');
}

/** Words in a drawing of which there is no older version beside it, which is what the library reads. */
function isInChoiceAlone(box: Element): boolean {
  for (let node: Element | null = box; node; node = node.parentNode as Element | null) {
    if (node.localName === 'Fallback') return false;
    if (node.localName !== 'AlternateContent') continue;
    return descendants(child(node, 'Fallback'), 'txbxContent').length === 0;
  }
  return descendants(box, 'p').length > 0 && hasAncestor(box, 'drawing');
}

const hasAncestor = (element: Element, name: string): boolean => {
  for (let node = element.parentNode as Element | null; node; node = node.parentNode as Element | null)
    if (node.localName === name) return true;
  return false;
};

/** Puts the paragraphs of a box behind the paragraph that holds it. */
function moveBehind(box: Element): void {
  let holder: Node | null = box;
  let paragraph: Node | undefined;
  while ((holder = holder.parentNode))
    if (holder.localName === 'p' && (holder as Element).prefix === box.prefix) paragraph = holder;
  if (!paragraph) return;
  for (const inner of [...children(box, 'p'), ...children(box, 'tbl')])
    paragraph.parentNode!.insertBefore(inner, paragraph.nextSibling);
}

/** Calls of notes that are not there, which the library stumbles over. */
export function removeStrayCalls(document: Document, kind: 'footnote' | 'endnote', notes: Document | undefined): void {
  const known = new Set(descendants(notes, kind).map((note) => attribute(note, 'w:id') ?? attribute(note, 'id')));
  for (const call of descendants(document, `${kind}Reference`))
    if (!known.has(attribute(call, 'w:id') ?? attribute(call, 'id'))) remove(call);
}
