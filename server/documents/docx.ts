import { canonicalText, countWords, titleOf, type Block } from '#core/folio';
import { XMLSerializer, type Document, type Element } from '@xmldom/xmldom';
import { strFromU8, strToU8, zipSync } from 'fflate';
import mammoth from 'mammoth';
import path from 'node:path/posix';
import { documentErrors, type DocumentPicture, type Reader } from './document.ts';
import { isJoined, mendDocx, removeStrayCalls } from './docx-mend.ts';
import { docxNumbering } from './docx-numbering.ts';
import { docxObject, type DocxObject } from './docx-objects.ts';
import { docxSetting } from './docx-setting.ts';
import { blocksOfHtml } from './html-blocks.ts';
import { mathNode } from './math.ts';
import { Placeholders } from './placeholders.ts';
import { standInPicture } from './stand-in-picture.ts';
import { unseenLabels } from './unseen.ts';
import { attribute, descendants, parseXml, path as follow, child, readableXml } from './xml.ts';
import { openPackage, type Package } from './zip.ts';

const PICTURE_TYPES = new Set(['image/png', 'image/jpeg', 'image/gif', 'image/webp', 'image/bmp']);

const STYLES = ["p[style-name='Title'] => h1:fresh", "p[style-name='Subtitle'] => h2:fresh", 'u => u', 'strike => s'];

/** Reads an Office Open XML text document (ECMA-376). */
export const readDocx: Reader = async (bytes) => {
  const parts = openPackage(bytes, 'docx');
  const main = mainPart(parts);
  const placeholders = new Placeholders();
  const styles = partXml(parts, path.join(path.dirname(main), 'styles.xml'));
  const pictures: DocumentPicture[] = [];
  const stand = (label: string): number => pictures.push(standInPicture(label)) - 1;
  const prepared = await prepare(parts, main, styles, placeholders, stand);
  const html = await convert(prepared, pictures, stand);
  const blocks = placeholders.restore(blocksOfHtml(html));
  if (countWords(canonicalText(blocks)) === 0 && pictures.length === 0) throw documentErrors.withoutText();
  for (const label of unseenIn(parts, main)) blocks.push({ type: 'picture', picture: stand(label), alt: label });
  return {
    title: titleOf(blocks),
    language: languageOf(styles),
    leaves: [{ kind: 'text', label: 'Text', blocks }],
    pictures,
  };
};

/** What a document says beside its words, and is not shown with them (ECMA-376 Part 1, sections 17.13.4 and 17.13.5). */
function unseenIn(parts: Package, main: string): string[] {
  const document = mainXml(parts, main);
  const changes = ['ins', 'del', 'moveFrom'].flatMap((name) => descendants(document, name));
  const comments = descendants(partXml(parts, path.join(path.dirname(main), 'comments.xml')), 'comment');
  return unseenLabels({ comments: comments.length, changes: changes.length });
}

async function convert(
  prepared: Record<string, Uint8Array>,
  pictures: DocumentPicture[],
  stand: (label: string) => number,
): Promise<string> {
  const options = {
    styleMap: STYLES,
    ignoreEmptyParagraphs: false,
    convertImage: mammoth.images.imgElement(async (image) => {
      if (!PICTURE_TYPES.has(image.contentType)) return { src: `picture:${stand('Picture of a kind for printing')}` };
      // A picture that is named and missing.
      const bytes = await image.readAsBuffer().catch(() => undefined);
      if (!bytes) return { src: `picture:${stand('Missing picture')}` };
      pictures.push({ mediaType: image.contentType, bytes });
      return { src: `picture:${pictures.length - 1}` };
    }),
  };
  const read = async (files: Record<string, Uint8Array>): Promise<string> => {
    const zip = zipSync(files, { level: 0 });
    return (await mammoth.convertToHtml({ buffer: Buffer.from(zip.buffer, zip.byteOffset, zip.byteLength) }, options))
      .value;
  };
  const known = pictures.length;
  try {
    return await read(prepared);
  } catch {
    // Odd lists must not cost the text: their numbers are known already.
    pictures.length = known;
    return read(Object.fromEntries(Object.entries(prepared).filter(([name]) => !name.endsWith('/numbering.xml'))));
  }
}

function mainPart(parts: Package): string {
  const relations = partXml(parts, '_rels/.rels');
  const relation = descendants(relations, 'Relationship').find((one) =>
    attribute(one, 'Type')?.endsWith('/officeDocument'),
  );
  return attribute(relation, 'Target')?.replace(/^\//, '') ?? 'word/document.xml';
}

const mainXml = (parts: Package, name: string): Document => {
  const text = parts.text(name);
  if (text === undefined) throw documentErrors.broken('docx');
  return parseXml(transitional(text), 'docx');
};

const partXml = (parts: Package, name: string): Document | undefined => {
  const text = parts.text(name);
  return readableXml(text && transitional(text), 'docx');
};

/** Parts that the library reads beside the main one, and stumbles over where they are broken. */
const BESIDE = /(?:^|\/)(?:styles|numbering|footnotes|endnotes|comments|\[Content_Types\])\.xml$|\.rels$/u;

/** What cannot be read costs no work: its name stands in its place. */
function orNamed(read: () => DocxObject | undefined): DocxObject | undefined {
  try {
    return read();
  } catch {
    return { label: 'Object that can’t be shown', texts: [] };
  }
}

/** The equation, or the signs that it is made of. */
async function equationIn(equation: Element, placeholders: Placeholders): Promise<string> {
  // Loads for a third of a second, and few documents have equations.
  const { default: omml2mathml } = await import('omml2mathml');
  try {
    return placeholders.math(mathNode(omml2mathml(equation) as never));
  } catch {
    const signs = descendants(equation, 't').map(({ textContent }) => textContent);
    return signs.join('') || 'Equation that can’t be shown';
  }
}

/** There are words in it: a paragraph without any is dropped where it stands for nothing. */
const isWritten = (paragraph: Element): boolean =>
  descendants(paragraph, 't').some(({ textContent }) => textContent !== '');

/** The parts of the same document with its numbers, equations and objects as placeholders, and as the library can read them. */
async function prepare(
  parts: Package,
  main: string,
  styles: Document | undefined,
  placeholders: Placeholders,
  stand: (label: string) => number,
): Promise<Record<string, Uint8Array>> {
  const folder = path.dirname(main);
  const settingOf = docxSetting(styles);
  const number = docxNumbering(partXml(parts, path.join(folder, 'numbering.xml')), styles);
  const [footnotes, endnotes] = ['footnotes.xml', 'endnotes.xml'].map((name) => path.join(folder, name)) as [
    string,
    string,
  ];
  const changed: Record<string, Uint8Array> = {};
  for (const name of [main, footnotes, endnotes]) {
    const document = name === main ? mainXml(parts, name) : partXml(parts, name);
    if (!document) continue;
    mendDocx(document);
    removeStrayCalls(document, 'footnote', partXml(parts, footnotes));
    removeStrayCalls(document, 'endnote', partXml(parts, endnotes));
    for (const paragraph of descendants(document, 'p')) {
      const marker = paragraph.prefix === 'w' && !isJoined(paragraph) ? number(paragraph) : undefined;
      if (marker) insertFirst(paragraph, textRun(paragraph, placeholders.number(marker)));
      const setting = paragraph.prefix === 'w' ? settingOf(paragraph) : {};
      if (isWritten(paragraph) && Object.keys(setting).length > 0)
        insertFirst(paragraph, textRun(paragraph, placeholders.setting(setting)));
    }
    for (const equation of descendants(document, 'oMath')) {
      const run = textRun(equation, await equationIn(equation, placeholders));
      equation.parentNode!.replaceChild(run, equation);
    }
    for (const display of descendants(document, 'oMathPara')) unwrap(display);
    const relations = partXml(parts, path.join(path.dirname(name), '_rels', `${path.basename(name)}.rels`));
    for (const element of [...descendants(document, 'drawing'), ...descendants(document, 'object')]) {
      const object = orNamed(() => docxObject(element, (id) => relatedPart(parts, folder, relations, id)));
      if (!object) continue;
      const words = object.texts.map((text): Block => ({ type: 'paragraph', runs: [{ text, marks: [] }] }));
      const picture: Block = { type: 'picture', picture: stand(object.label), alt: object.label };
      replaceInRun(element, placeholders.object([picture, ...words]));
    }
    changed[name] = strToU8(new XMLSerializer().serializeToString(document));
  }
  return Object.fromEntries(
    parts.names
      .filter((name) => !name.endsWith('/') && (!BESIDE.test(name) || partXml(parts, name) !== undefined))
      .map((name) => [name, changed[name] ?? inTransitional(name, parts.bytes(name)!)] as const),
  );
}

/** The same in the older names that the library knows, where a document has the strict ones (ECMA-376 Part 1, annex A). */
const transitional = (text: string): string =>
  text.replaceAll(/http:\/\/purl\.oclc\.org\/ooxml\/(\w+)\//gu, 'http://schemas.openxmlformats.org/$1/2006/');

function inTransitional(name: string, bytes: Uint8Array): Uint8Array {
  if (!/\.(?:xml|rels)$/u.test(name)) return bytes;
  const text = strFromU8(bytes);
  return text.includes('http://purl.oclc.org/ooxml/') ? strToU8(transitional(text)) : bytes;
}

function relatedPart(
  parts: Package,
  folder: string,
  relations: Document | undefined,
  id: string,
): Document | undefined {
  const relation = descendants(relations, 'Relationship').find((one) => attribute(one, 'Id') === id);
  const target = attribute(relation, 'Target');
  if (target === undefined) return undefined;
  return partXml(parts, target.startsWith('/') ? target.slice(1) : path.join(folder, target));
}

/** Puts characters in the place of a drawing; where both a newer and an older form of it are there, in that of both. */
function replaceInRun(element: Element, text: string): void {
  let whole = element;
  for (let node = element.parentNode as Element; node && node.localName !== 'r'; node = node.parentNode as Element)
    whole = node;
  const words = element.ownerDocument!.createElementNS(element.lookupNamespaceURI('w')!, 'w:t');
  words.textContent = text;
  whole.parentNode!.replaceChild(words, whole);
}

function textRun(near: Element, text: string): Element {
  const document = near.ownerDocument!;
  const namespace = near.lookupNamespaceURI('w')!;
  const run = document.createElementNS(namespace, 'w:r');
  const words = document.createElementNS(namespace, 'w:t');
  words.textContent = text;
  run.appendChild(words);
  return run;
}

function insertFirst(paragraph: Element, run: Element): void {
  const properties = child(paragraph, 'pPr');
  paragraph.insertBefore(run, properties ? properties.nextSibling : paragraph.firstChild);
}

function unwrap(element: Element): void {
  for (const inner of Array.from(element.childNodes))
    if (inner.nodeName === 'w:r') element.parentNode!.insertBefore(inner, element);
  element.parentNode!.removeChild(element);
}

/** The language that the document is written in unless a part of it says otherwise. */
function languageOf(styles: Document | undefined): string | undefined {
  const defaults = follow(styles?.documentElement ?? undefined, 'docDefaults', 'rPrDefault', 'rPr');
  const language = attribute(child(defaults, 'lang'), 'val');
  return language && /^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$/.test(language) ? language : undefined;
}
