import { canonicalText, countWords, titleOf, type TextLeaf } from '#core/folio';
import { defaultTreeAdapter as tree, parse, parseFragment, type DefaultTreeAdapterTypes } from 'parse5';
import type { Encoding } from '../../contract/uploads.ts';
import { decodeText, encodingNamed, guessedIn } from './decode-text.ts';
import { documentErrors, type DocumentPicture, type Reader, type Reading } from './document.ts';
import { blocksOfNodes } from './html-blocks.ts';
import { partsOfPage } from './html-main.ts';
import { takePictures } from './html-pictures.ts';
import { collapseWhiteSpace } from './html-space.ts';

type ChildNode = DefaultTreeAdapterTypes.ChildNode;
type ParentNode = DefaultTreeAdapterTypes.ParentNode;

const CHARSET = /<meta[^>]+charset\s*=\s*(?:["']\s*)?([\w-]+)/iu;

/** https://html.spec.whatwg.org/multipage/parsing.html#prescan-a-byte-stream-to-determine-its-encoding */
function declaredIn(bytes: Uint8Array): Encoding | undefined {
  const marked = (bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff);
  const [, label] = CHARSET.exec(Buffer.from(bytes.subarray(0, 1024)).toString('latin1')) ?? [];
  const encoding = label === undefined || marked ? undefined : encodingNamed(label);
  // Bytes that could be searched for it are not as wide as it says.
  return encoding?.startsWith('utf-16') ? 'utf-8' : encoding;
}

/** RFC 5646, section 2.1, as much as is needed. */
export const LANGUAGE = /^[A-Za-z]{2,8}(?:-[A-Za-z0-9]{1,8})*$/;

const DATA_PICTURE = /^data:(image\/(?:png|jpeg|gif|webp));base64,([A-Za-z0-9+/=\s]+)$/;

/** Reads a web page: its words and the pictures that it carries inside of itself. Nothing is loaded from elsewhere. */
export const readHtml: Reader = (bytes, _name, { encoding }) => {
  const decoded = decodeText(bytes, encoding ?? declaredIn(bytes)) ?? decodeText(bytes);
  if (!decoded) throw documentErrors.broken('html');
  const document = parse(decoded.text);
  const html = document.childNodes.filter(tree.isElementNode).find(({ tagName }) => tagName === 'html');
  const language = html?.attrs.find(({ name }) => name === 'lang')?.value;
  const title = textOfElement(html, 'title');
  return {
    ...readingOf(document, pageParts, title),
    guessed: guessedIn(decoded),
    ...(language && LANGUAGE.test(language) && { language }),
  };
};

/** The reading of HTML that we made ourselves, e.g. from Markdown. */
export const readingOfHtml = (html: string): Reading =>
  readingOf(parseFragment(html), ({ childNodes }) => [{ label: 'Text', nodes: childNodes }]);

/** Begins with what the page was written for; nothing of the rest is lost. */
const pageParts = (document: ParentNode): Part[] => {
  const { main, around } = partsOfPage(document);
  return [
    { label: 'Text', nodes: main },
    { label: 'Rest of the page', nodes: around },
  ];
};

interface Part {
  label: string;
  nodes: ChildNode[];
}

function readingOf(root: ParentNode, partsOf: (root: ParentNode) => Part[], title?: string): Reading {
  const pictures: DocumentPicture[] = [];
  takePictures(root, pictures, carried(pictures));
  collapseWhiteSpace(root);
  const leaves = partsOf(root)
    .map(({ label, nodes }): TextLeaf => ({ kind: 'text', label, blocks: blocksOfNodes(nodes) }))
    .filter(({ blocks }, index) => index === 0 || blocks.length > 0);
  const words = leaves.reduce((sum, { blocks }) => sum + countWords(canonicalText(blocks)), 0);
  if (words === 0 && pictures.length === 0) throw documentErrors.withoutText();
  return { title: titleOf(leaves[0]!.blocks) ?? title, leaves, pictures };
}

/** Only what a page carries inside of itself is there. */
const carried =
  (pictures: DocumentPicture[]) =>
  (source: string): number | undefined => {
    const [, mediaType, data] = DATA_PICTURE.exec(source) ?? [];
    return mediaType && data ? pictures.push({ mediaType, bytes: Buffer.from(data, 'base64') }) - 1 : undefined;
  };

function textOfElement(node: ParentNode | undefined, name: string): string | undefined {
  for (const child of node?.childNodes.filter(tree.isElementNode) ?? []) {
    if (child.tagName === name)
      return child.childNodes
        .filter(tree.isTextNode)
        .map(({ value }) => value)
        .join('')
        .trim();
    const inner = textOfElement(child, name);
    if (inner !== undefined) return inner;
  }
  return undefined;
}
