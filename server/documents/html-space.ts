import { defaultTreeAdapter as tree, type DefaultTreeAdapterTypes } from 'parse5';
import { isBlockElement } from './html-blocks.ts';

type Node = DefaultTreeAdapterTypes.Node;
type ParentNode = DefaultTreeAdapterTypes.ParentNode;

/**
 * White space as a browser shows it: runs of it are one space, none at the edges of blocks and around line breaks
 * (CSS Text 3, section 4.1). What stands in `pre` is left as it is.
 */
export function collapseWhiteSpace(root: ParentNode): void {
  /** The last text of the line so far; absent at the beginning of one. */
  let last: DefaultTreeAdapterTypes.TextNode | undefined;
  const endLine = (): void => {
    if (last) last.value = last.value.replace(/ $/, '');
    last = undefined;
  };
  const visit = (node: Node): void => {
    if (tree.isTextNode(node)) {
      node.value = node.value.replace(/[ \t\n\f\r]+/g, ' ');
      if (!last || last.value.endsWith(' ')) node.value = node.value.replace(/^ /, '');
      if (node.value !== '') last = node;
      return;
    }
    if (!('childNodes' in node)) return;
    const name = tree.isElementNode(node) ? node.tagName : '';
    const ownLine = name === 'br' || name === 'pre' || isBlockElement(name);
    if (ownLine) endLine();
    if (name !== 'pre') node.childNodes.forEach(visit);
    if (ownLine) endLine();
  };
  root.childNodes.forEach(visit);
  endLine();
}
