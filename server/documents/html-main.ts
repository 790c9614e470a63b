import { defaultTreeAdapter as tree, type DefaultTreeAdapterTypes } from 'parse5';

type Element = DefaultTreeAdapterTypes.Element;
type ParentNode = DefaultTreeAdapterTypes.ParentNode;

const roleOf = (element: Element): string | undefined => element.attrs.find(({ name }) => name === 'role')?.value;

const isMain = (element: Element): boolean => element.tagName === 'main' || roleOf(element) === 'main';
const isNavigation = (element: Element): boolean =>
  ['nav', 'search'].includes(element.tagName) || ['navigation', 'search', 'banner'].includes(roleOf(element) ?? '');

/** The outermost elements that are wanted. */
function outermost(parent: ParentNode, wanted: (element: Element) => boolean): Element[] {
  return parent.childNodes
    .filter(tree.isElementNode)
    .flatMap((element) => (wanted(element) ? [element] : outermost(element, wanted)));
}

const hasWords = (node: DefaultTreeAdapterTypes.Node): boolean =>
  tree.isTextNode(node) ? /[\p{L}\p{N}]/u.test(node.value) : 'childNodes' in node && node.childNodes.some(hasWords);

/** A saved page in two parts: what it was written for, and what stands around that. */
export interface PageParts {
  main: DefaultTreeAdapterTypes.ChildNode[];
  around: DefaultTreeAdapterTypes.ChildNode[];
}

/**
 * The main content of a page is its `main` element or its only `article` (HTML Standard, sections 4.4.14 and 4.3.2), with the title that
 * stands before it; where there is none, everything but its navigation.
 */
export function partsOfPage(document: ParentNode): PageParts {
  const [main] = outermost(document, (element) => isMain(element) && hasWords(element));
  const articles = outermost(document, ({ tagName }) => tagName === 'article');
  const content = main ?? (articles.length === 1 && hasWords(articles[0]!) ? articles[0] : undefined);
  if (!content) {
    const around = outermost(document, isNavigation);
    around.forEach(tree.detachNode);
    return { main: document.childNodes, around };
  }
  const isTitle = ({ tagName }: Element): boolean => tagName === 'h1';
  const [own] = outermost(content, isTitle);
  tree.detachNode(content);
  const title = own ? undefined : outermost(document, isTitle)[0];
  if (title) tree.detachNode(title);
  return { main: title ? [title, content] : [content], around: document.childNodes };
}
