import type { Block, Mark, Role, Run, Setting, TableCell, TextBlock } from '#core/folio';
import { isTextBlock } from '#core/folio';
import { defaultTreeAdapter as tree, parseFragment, type DefaultTreeAdapterTypes } from 'parse5';
import { listNumber, type Counting } from './list-number.ts';
import { mathNode, mathText } from './math.ts';

type Node = DefaultTreeAdapterTypes.Node;
type Element = DefaultTreeAdapterTypes.Element;

const MARKS: Record<string, Mark> = {
  strong: 'bold',
  b: 'bold',
  em: 'italic',
  i: 'italic',
  u: 'underline',
  s: 'strike',
  del: 'strike',
  sup: 'superscript',
  sub: 'subscript',
  code: 'code',
  kbd: 'code',
  samp: 'code',
  tt: 'code',
};

/**
 * The call of a footnote or endnote, and the way back from the note to its call: as mammoth marks them, or by their roles
 * (Digital Publishing WAI-ARIA Module 1.1; EPUB Structural Semantics Vocabulary 1.1).
 */
const NOTE_CALL = /^#(?:foot|end)note-\d+$/;
const NOTE_BACKLINK = /^#(?:foot|end)note-ref-\d+$/;
const isCall = (element: Element): boolean =>
  NOTE_CALL.test(attribute(element, 'href') ?? '') ||
  attribute(element, 'role') === 'doc-noteref' ||
  attribute(element, 'epub:type') === 'noteref';
const isBacklink = (element: Element): boolean =>
  NOTE_BACKLINK.test(attribute(element, 'href') ?? '') || attribute(element, 'role') === 'doc-backlink';

/** The only links that are kept; everything else (javascript:, file:, data: …) becomes plain text. */
const SAFE_LINK = /^(https?:\/\/|mailto:)/i;

/**
 * The blocks of an HTML fragment. Only what is named here comes through, so nothing can run or load:
 * headings, paragraphs, lists, tables, pictures of the document itself (`picture:N`), marks and safe links.
 */
export const blocksOfHtml = (html: string): Block[] => blocksOfNodes(parseFragment(html).childNodes);

/** The same for a tree that was parsed and prepared before. */
export const blocksOfNodes = (nodes: Node[]): Block[] => blocksOf(nodes);

function blocksOf(nodes: Node[], depth = 0): Block[] {
  const blocks: Block[] = [];
  let loose: Node[] = [];
  const flush = (): void => {
    const runs = runsOf(loose);
    if (runs.some(({ text, note }) => text.trim() !== '' || note))
      blocks.push({ type: 'paragraph', runs, ...settingOf(loose[0]!) });
    blocks.push(...loose.flatMap(picturesOf));
    loose = [];
  };
  for (const node of nodes) {
    if (tree.isElementNode(node) && SILENT.has(node.tagName)) continue;
    const reader = tree.isElementNode(node) ? (BLOCKS[node.tagName] ?? (holdsBlocks(node) && container)) : false;
    if (!reader) {
      loose.push(node);
      continue;
    }
    flush();
    blocks.push(...reader(node as Element, depth));
  }
  flush();
  return blocks;
}

/** An element that is no block by itself, of the page's own making or not, may still hold some. */
const holdsBlocks = (element: Element): boolean =>
  element.childNodes.some(
    (child) =>
      tree.isElementNode(child) &&
      !SILENT.has(child.tagName) &&
      (BLOCKS[child.tagName] !== undefined || holdsBlocks(child)),
  );

/** The nearest element that says in which direction it is written; `auto` is what readers do by themselves. */
function settingOf(inner: Node): Setting {
  for (let node: Node | null = inner; node; node = parentOf(node)) {
    if (!tree.isElementNode(node)) continue;
    const said = attribute(node, 'dir')?.toLowerCase();
    if (said !== undefined) return said === 'rtl' ? { direction: 'rtl' } : {};
  }
  return {};
}

const parentOf = (node: Node): Node | null => ('parentNode' in node ? (node.parentNode ?? null) : null);

type BlockReader = (element: Element, depth: number) => Block[];

const heading: BlockReader = (element) => [
  {
    type: 'heading',
    level: Number(element.tagName.charAt(1)),
    runs: runsOf(element.childNodes),
    ...settingOf(element),
  },
  ...picturesOf(element),
];
const paragraph: BlockReader = (element) => [
  { type: 'paragraph', runs: runsOf(element.childNodes), ...settingOf(element) },
  ...picturesOf(element),
];
const preformatted: BlockReader = (element) => [
  { type: 'paragraph', runs: runsOf(element.childNodes, ['code']), ...settingOf(element) },
  ...picturesOf(element),
];
const container: BlockReader = (element, depth) => blocksOf(element.childNodes, depth);
/** What a quotation or a caption holds; a quotation may hold headings, lists and another quotation. */
const inRole =
  (role: Role): BlockReader =>
  (element, depth) =>
    blocksOf(element.childNodes, depth).map((block) => (isTextBlock(block) ? { role, ...block } : block));
const caption = inRole('caption');
const table: BlockReader = (element) => {
  const rows = descendants(element, 'tr').map((row) => row.childNodes.filter(isCell).map(cellOf));
  const captions = element.childNodes.filter(tree.isElementNode).filter(({ tagName }) => tagName === 'caption');
  return [...captions.flatMap((one) => caption(one, 0)), { type: 'table', rows }, ...picturesOf(element)];
};
/** https://html.spec.whatwg.org/multipage/grouping-content.html#attr-ol-type */
const COUNTINGS: Record<string, Counting> = {
  a: 'lowerLetter',
  A: 'upperLetter',
  i: 'lowerRoman',
  I: 'upperRoman',
};

const list: BlockReader = (element, depth) => {
  const counting = COUNTINGS[attribute(element, 'type') ?? ''] ?? 'decimal';
  let number = Number(attribute(element, 'start') ?? 1);
  return element.childNodes.filter(tree.isElementNode).flatMap((child) => {
    if (child.tagName !== 'li') return blocksOf([child], depth + 1);
    number = Number(attribute(child, 'value') ?? number);
    const marker = element.tagName === 'ol' ? `${listNumber(number++, counting)}.` : '•';
    return itemOf(child, depth, marker);
  });
};

/** A term stands as a paragraph of its own, what it means below it as an entry without a number. */
const definitions: BlockReader = (element, depth) =>
  element.childNodes
    .filter(tree.isElementNode)
    .flatMap((child) => (child.tagName === 'dd' ? itemOf(child, depth, '') : blocksOf([child], depth)));

const BLOCKS: Record<string, BlockReader | undefined> = {
  h1: heading,
  h2: heading,
  h3: heading,
  h4: heading,
  h5: heading,
  h6: heading,
  p: paragraph,
  pre: preformatted,
  ...Object.fromEntries(
    [
      ...['html', 'body', 'main', 'div', 'section', 'article', 'header', 'footer', 'nav', 'aside'],
      ...['figure', 'details', 'form', 'fieldset', 'center', 'hgroup', 'dt', 'dd', 'hr'],
    ].map((name) => [name, container]),
  ),
  address: paragraph,
  blockquote: inRole('quotation'),
  figcaption: caption,
  summary: paragraph,
  ul: list,
  ol: list,
  menu: list,
  dl: definitions,
  table,
};

/** What holds no words for a reader. */
const SILENT = new Set([
  'script',
  'style',
  'template',
  'noscript',
  'head',
  'title',
  'iframe',
  'object',
  'svg',
  'select',
]);

/** Whether an element begins and ends lines of its own. */
export const isBlockElement = (name: string): boolean =>
  name in BLOCKS || ['li', 'tr', 'td', 'th', 'caption'].includes(name);

/** The first text of a list item carries its marker; further paragraphs and lists in it follow below. */
function itemOf(item: Element, depth: number, marker: string): Block[] {
  const [first, ...rest] = blocksOf(item.childNodes, depth + 1);
  if (first?.type === 'paragraph') return [{ ...first, type: 'item', depth, marker }, ...rest];
  const empty: Block = { type: 'item', depth, marker, runs: [], ...settingOf(item) };
  return [empty, ...(first ? [first] : []), ...rest];
}

const isCell = (node: Node): node is Element =>
  tree.isElementNode(node) && (node.tagName === 'td' || node.tagName === 'th');

const cellOf = (cell: Element): TableCell => ({
  header: cell.tagName === 'th',
  ...span(cell, 'colspan', 'columns'),
  ...span(cell, 'rowspan', 'rows'),
  blocks: blocksOf(cell.childNodes).flatMap((block): TextBlock[] => {
    if (isTextBlock(block)) return [block];
    return block.type === 'table' ? block.rows.flat().flatMap((inner) => inner.blocks) : [];
  }),
});

function span(cell: Element, name: string, field: 'columns' | 'rows'): Partial<TableCell> {
  const count = Number(attribute(cell, name) ?? 1);
  return Number.isInteger(count) && count > 1 && count <= 1000 ? { [field]: count } : {};
}

function runsOf(nodes: Node[], marks: Mark[] = [], link?: string): Run[] {
  return nodes
    .flatMap((node, index): Run[] => {
      if (tree.isTextNode(node))
        return [{ text: textBefore(nodes[index + 1], node.value), marks, ...(link && { link }) }];
      return tree.isElementNode(node) ? runsOfElement(node, marks, link) : [];
    })
    .filter((run) => run.text !== '' || run.note !== undefined);
}

function runsOfElement(element: Element, marks: Mark[], link?: string): Run[] {
  if (element.tagName === 'br') return [{ text: '\n', marks }];
  if (SILENT.has(element.tagName)) return [];
  if (element.tagName === 'math') return equation(element, marks);
  const href = (element.tagName === 'a' && attribute(element, 'href')) || '';
  if (isBacklink(element)) return [];
  if (isCall(element)) return [{ text: '', marks, note: textOf(element).replace(/[[\]]/g, '') }];
  const mark = MARKS[element.tagName];
  const inner = mark && !marks.includes(mark) ? [...marks, mark] : marks;
  return runsOf(element.childNodes, inner, SAFE_LINK.test(href) ? href : link);
}

function equation(element: Element, marks: Mark[]): Run[] {
  const math = mathNode(asDom(element));
  return [{ text: mathText(math), marks, math }];
}

interface DomNode {
  nodeType: number;
  nodeValue: string | null;
  localName: string | null;
  childNodes: DomNode[];
  getAttribute(name: string): string | null;
}

/** A node as the DOM has it (https://dom.spec.whatwg.org/#interface-node). */
function asDom(node: Node): DomNode {
  const element = tree.isElementNode(node) ? node : undefined;
  return {
    nodeType: element ? 1 : tree.isTextNode(node) ? 3 : 8,
    nodeValue: tree.isTextNode(node) ? node.value : null,
    localName: element?.tagName ?? null,
    childNodes: (element?.childNodes ?? []).map(asDom),
    getAttribute: (name) => (element && attribute(element, name)) ?? null,
  };
}

/** mammoth sets a space between a note and its way back; neither stands in the file. */
const textBefore = (next: Node | undefined, text: string): string =>
  next && tree.isElementNode(next) && isBacklink(next) ? text.replace(/ $/, '') : text;

function picturesOf(node: Node): Block[] {
  if (!tree.isElementNode(node)) return [];
  if (node.tagName !== 'img') return node.childNodes.flatMap(picturesOf);
  const number = /^picture:(\d+)$/.exec(attribute(node, 'src') ?? '')?.[1];
  return number === undefined ? [] : [{ type: 'picture', picture: Number(number), alt: attribute(node, 'alt') ?? '' }];
}

function descendants(element: Element, tagName: string): Element[] {
  return element.childNodes
    .filter(tree.isElementNode)
    .flatMap((child) =>
      child.tagName === tagName ? [child] : child.tagName === 'table' ? [] : descendants(child, tagName),
    );
}

const attribute = (element: Element, name: string): string | undefined =>
  element.attrs.find((candidate) => candidate.name === name)?.value;

const textOf = (node: Node): string => {
  if (tree.isTextNode(node)) return node.value;
  return tree.isElementNode(node) ? node.childNodes.map(textOf).join('') : '';
};
