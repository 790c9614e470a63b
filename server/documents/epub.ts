import { canonicalText, countWords, titleOf, type Block } from '#core/folio';
import { defaultTreeAdapter as tree, parse } from 'parse5';
import path from 'node:path/posix';
import { documentErrors, documentNotes, type DocumentPicture, type Reader } from './document.ts';
import { blocksOfNodes } from './html-blocks.ts';
import { collapseWhiteSpace } from './html-space.ts';
import { takePictures } from './html-pictures.ts';
import { LANGUAGE } from './html.ts';
import { packagePictures } from './package-pictures.ts';
import { attribute, child, children, descendants, readableXml } from './xml.ts';
import { openPackage } from './zip.ts';

/** Elements that HTML never closes by themselves; XHTML may write any other as `<a/>`. */
const SELF_CLOSED = /<([a-z][\w:-]*)((?:\s[^<>]*)?)\/>/giu;
const VOID = new Set(['area', 'base', 'br', 'col', 'embed', 'hr', 'img', 'input', 'link', 'meta', 'source', 'wbr']);
const asHtml = (xhtml: string): string =>
  xhtml.replace(SELF_CLOSED, (all, name: string, rest: string) =>
    VOID.has(name.toLowerCase()) ? all : `<${name}${rest}></${name}>`,
  );

/** Reads an e-book (EPUB 3.3, sections 4.2.6, 5 and 6): its chapters in reading order, without the table that leads to them. */
export const readEpub: Reader = (bytes) => {
  const files = openPackage(bytes, 'epub');
  const xml = (name: string) => readableXml(files.text(name), 'epub')?.documentElement ?? undefined;
  const main = attribute(descendants(xml('META-INF/container.xml'), 'rootfile')[0], 'full-path');
  const book = main === undefined ? undefined : xml(main);
  if (main === undefined || !book) throw documentErrors.broken('epub');
  const inBook = (href: string): string => path.join(path.dirname(main), decoded(href));
  const items = children(child(book, 'manifest'), 'item').map((item) => ({
    id: attribute(item, 'id'),
    name: inBook(attribute(item, 'href') ?? ''),
    isContents: (attribute(item, 'properties') ?? '').split(/\s+/u).includes('nav'),
  }));
  const chapters = children(child(book, 'spine'), 'itemref')
    .map((reference) => items.find(({ id }) => id === attribute(reference, 'idref')))
    .filter((item) => item !== undefined && !item.isContents)
    .map((item) => item!.name);
  const locked = descendants(xml('META-INF/encryption.xml'), 'CipherReference').map((one) =>
    decoded(attribute(one, 'URI') ?? ''),
  );
  if (chapters.some((name) => locked.includes(name))) throw documentErrors.locked('epub');

  const pictures: DocumentPicture[] = [];
  const picture = packagePictures(files, pictures);
  const unreadable: string[] = [];
  const blocks = chapters.flatMap((name): Block[] => {
    const text = files.text(name);
    if (text === undefined) {
      unreadable.push(path.basename(name));
      return [{ type: 'paragraph', runs: [{ text: `The chapter “${path.basename(name)}” is missing.`, marks: [] }] }];
    }
    const page = parse(asHtml(text));
    takePictures(page, pictures, (source) => picture(path.join(path.dirname(name), decoded(source))));
    collapseWhiteSpace(page);
    return blocksOfNodes(page.childNodes.filter(tree.isElementNode));
  });
  if (chapters.length === unreadable.length) throw documentErrors.broken('epub');
  if (countWords(canonicalText(blocks)) === 0 && pictures.length === 0) throw documentErrors.withoutText();
  const metadata = child(book, 'metadata');
  const language = child(metadata, 'language')?.textContent?.trim();
  return {
    title: titleOf(blocks) ?? (child(metadata, 'title')?.textContent?.trim() || undefined),
    ...(language && LANGUAGE.test(language) && { language }),
    leaves: [{ kind: 'text', label: 'Text', blocks }],
    pictures,
    notes: unreadable.length > 0 ? [documentNotes.unreadable(unreadable)] : [],
  };
};

/** A name as it stands in the package; what is no URL stays as it is. */
function decoded(href: string): string {
  const [name] = href.split('#');
  try {
    return decodeURIComponent(name!);
  } catch {
    return name!;
  }
}
