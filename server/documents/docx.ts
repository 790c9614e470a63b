import { canonicalText, countWords, titleOf } from '#core/folio';
import { XMLSerializer, type Document, type Element } from '@xmldom/xmldom';
import { strToU8, zipSync } from 'fflate';
import mammoth from 'mammoth';
import path from 'node:path/posix';
import { documentErrors, type DocumentPicture, type Reader } from './document.ts';
import { docxNumbering } from './docx-numbering.ts';
import { blocksOfHtml } from './html-blocks.ts';
import { mathNode } from './math.ts';
import { Placeholders } from './placeholders.ts';
import { attribute, descendants, parseXml, path as follow, child } from './xml.ts';
import { openPackage, type Package } from './zip.ts';

const PICTURE_TYPES = new Set(['image/png', 'image/jpeg', 'image/gif', 'image/webp', 'image/bmp']);

const STYLES = [
  "p[style-name='Title'] => h1:fresh",
  "p[style-name='Subtitle'] => h2:fresh",
  'u => u',
  'strike => s',
  'br[type="page"] => ',
];

/** Tracked changes are shown as accepted (ECMA-376 Part 1, section 17.13.5). */
const TAKEN_OUT = ['del', 'moveFrom'];

/** Reads an Office Open XML text document (ECMA-376). */
export const readDocx: Reader = async (bytes) => {
  const parts = openPackage(bytes, 'docx');
  const main = mainPart(parts);
  const placeholders = new Placeholders();
  const styles = partXml(parts, path.join(path.dirname(main), 'styles.xml'));
  const prepared = await prepare(parts, main, styles, placeholders);
  const pictures: DocumentPicture[] = [];
  const html = await mammoth.convertToHtml(
    { buffer: Buffer.from(prepared.buffer, prepared.byteOffset, prepared.byteLength) },
    {
      styleMap: STYLES,
      ignoreEmptyParagraphs: false,
      convertImage: mammoth.images.imgElement(async (image) => {
        if (!PICTURE_TYPES.has(image.contentType)) return { src: '' };
        pictures.push({ mediaType: image.contentType, bytes: await image.readAsBuffer() });
        return { src: `picture:${pictures.length - 1}` };
      }),
    },
  );
  const blocks = placeholders.restore(blocksOfHtml(html.value));
  if (countWords(canonicalText(blocks)) === 0 && pictures.length === 0) throw documentErrors.withoutText();
  return {
    title: titleOf(blocks),
    language: languageOf(styles),
    leaves: [{ kind: 'text', label: 'Text', blocks }],
    pictures,
  };
};

function mainPart(parts: Package): string {
  const relations = partXml(parts, '_rels/.rels');
  const relation = descendants(relations, 'Relationship').find((one) =>
    attribute(one, 'Type')?.endsWith('/officeDocument'),
  );
  return attribute(relation, 'Target')?.replace(/^\//, '') ?? 'word/document.xml';
}

const partXml = (parts: Package, name: string): Document | undefined => {
  const text = parts.text(name);
  return text === undefined ? undefined : parseXml(text, 'docx');
};

/** The same document with its numbers and equations as placeholders, and without what was struck. */
async function prepare(
  parts: Package,
  main: string,
  styles: Document | undefined,
  placeholders: Placeholders,
): Promise<Uint8Array> {
  const folder = path.dirname(main);
  const number = docxNumbering(partXml(parts, path.join(folder, 'numbering.xml')), styles);
  const changed: Record<string, Uint8Array> = {};
  for (const name of [main, path.join(folder, 'footnotes.xml'), path.join(folder, 'endnotes.xml')]) {
    const document = partXml(parts, name);
    if (!document) continue;
    for (const struck of TAKEN_OUT)
      for (const element of descendants(document, struck)) element.parentNode?.removeChild(element);
    for (const paragraph of descendants(document, 'p')) {
      const marker = paragraph.prefix === 'w' ? number(paragraph) : undefined;
      if (marker) insertFirst(paragraph, textRun(paragraph, placeholders.number(marker)));
    }
    for (const equation of descendants(document, 'oMath')) {
      // Loads for a third of a second, and few documents have equations.
      const { default: omml2mathml } = await import('omml2mathml');
      const run = textRun(equation, placeholders.math(mathNode(omml2mathml(equation) as never)));
      equation.parentNode!.replaceChild(run, equation);
    }
    for (const display of descendants(document, 'oMathPara')) unwrap(display);
    changed[name] = strToU8(new XMLSerializer().serializeToString(document));
  }
  const files = parts.names
    .filter((name) => !name.endsWith('/'))
    .map((name) => [name, changed[name] ?? parts.bytes(name)!] as const);
  return zipSync(Object.fromEntries(files), { level: 0 });
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
