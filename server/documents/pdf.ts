import { partRunningHeads, placedTexts, type DrawnText, type PageLeaf } from '#core/folio';
import { min } from 'd3-array';
import {
  getDocument,
  PasswordResponses,
  type PDFDocumentProxy,
  type PDFPageProxy,
} from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { TextItem, TextStyle } from 'pdfjs-dist/types/src/display/api.js';
import { inPdfEngine } from './pdf-engine.ts';
import { lettersOn, pageLetters } from './page-letters.ts';
import { PDF_FILES } from './pdf-files.ts';
import { isSpread, wordsOfLetters } from './spread-letters.ts';
import {
  bulkOfFile,
  documentErrors,
  documentNotes,
  isTooMuch,
  type Bulk,
  type Reader,
  type ReadOptions,
} from './document.ts';

const MAX_PAGES = 500;
/** Of a typical face, where a font does not say how far its letters reach above the line. */
const USUAL_ASCENT = 0.8;

/** What is left of signs of which a font does not say what they mean. */
// eslint-disable-next-line no-control-regex
const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f]/gu;

/** Reads a PDF (ISO 32000): its pages are drawn in the browser; here their words are put into order. */
export const readPdf: Reader = async (bytes, _name, { onPage }) => {
  const loading = getDocument({ ...PDF_FILES, data: new Uint8Array(bytes) });
  const document = await loading.promise.catch((error: { name?: string; code?: number }) => {
    const locked = error.name === 'PasswordException' || error.code === PasswordResponses.NEED_PASSWORD;
    throw locked ? documentErrors.locked('pdf') : documentErrors.broken('pdf');
  });
  try {
    if (document.numPages > MAX_PAGES) throw documentErrors.tooManyPages();
    const { info } = (await document.getMetadata()) as { info: { Title?: string; Language?: string } };
    const leaves = await inPdfEngine(() => pagesOf(document, onPage));
    const wordless = leaves.filter(({ texts }) => texts.every(({ text }) => text.trim() === '')).length;
    return {
      title: titleOf(info.Title),
      language: info.Language || undefined,
      ...{ leaves, notes: wordless > 0 ? [documentNotes.scanned(wordless, leaves.length)] : [] },
    };
  } finally {
    await loading.destroy();
  }
};

/** Word processors write the name of a file where the title belongs. */
const titleOf = (title: string | undefined): string | undefined =>
  title && !/\.\w{2,4}$|^untitled/i.test(title.trim()) ? title.trim() || undefined : undefined;

async function pagesOf(document: PDFDocumentProxy, onPage: ReadOptions['onPage']): Promise<PageLeaf[]> {
  const labels = await document.getPageLabels();
  const leaves: PageLeaf[] = [];
  const bulks: Bulk[] = [];
  for (let number = 1; number <= document.numPages; number++) {
    const page = await document.getPage(number);
    const { width, height } = page.getViewport({ scale: 1 });
    const label = `Page ${labels?.[number - 1] || number}`;
    const texts = placedTexts(withTyped(await drawnTexts(page), await typedTexts(page)));
    const leaf: PageLeaf = { kind: 'page', label, page: number, width, height, texts };
    page.cleanup();
    leaves.push(leaf);
    bulks.push(bulkOfFile({ leaves: [leaf] }));
    if (isTooMuch(bulks)) throw documentErrors.tooMuchText();
    onPage?.({ read: number, of: document.numPages });
  }
  const texts = partRunningHeads(leaves.map((leaf) => leaf.texts));
  return leaves.map((leaf, index) => ({ ...leaf, texts: texts[index]! }));
}

async function drawnTexts(page: PDFPageProxy): Promise<DrawnText[]> {
  const { transform } = page.getViewport({ scale: 1 });
  const { items, styles } = await page.getTextContent();
  const lines = items
    .filter((item): item is TextItem => 'str' in item)
    .map((item) => ({ ...item, str: item.str.replaceAll(CONTROL, '') }))
    .map((item) => ({ drawn: drawnText(item, styles[item.fontName], transform as Matrix), ends: item.hasEOL }));
  const letters = lines.some(({ drawn }) => isSpread(drawn.text)) ? await pageLetters(page) : [];
  return lines.flatMap(({ drawn, ends }) => {
    const text = isSpread(drawn.text) ? wordsOfLetters(lettersOn(drawn, letters), drawn.height) : '';
    const line = text === '' ? drawn : { ...drawn, text };
    // The end of a line separates words as a space does.
    return ends ? [line, { ...line, text: ' ' }] : [line];
  });
}

interface Annotation {
  subtype: string;
  fieldType?: string;
  fieldValue?: unknown;
  password?: boolean;
  hidden?: boolean;
  rect: [number, number, number, number];
  textContent?: string[];
  contentsObj?: { str?: string };
  defaultAppearanceData?: { fontSize?: number };
}

const FIELD_LETTERS = 10;
const FIELD_INSET = 2;

/** What was typed into fields, or on the page as a note that stands there: ISO 32000-2, sections 12.7 and 12.5.6.6. */
async function typedTexts(page: PDFPageProxy): Promise<DrawnText[]> {
  const viewport = page.getViewport({ scale: 1 });
  const annotations = (await page.getAnnotations()) as Annotation[];
  return annotations.flatMap((annotation) => {
    const lines = annotation.hidden ? [] : wordsIn(annotation);
    const [x1, y1, x2, y2] = viewport.convertToViewportRectangle(annotation.rect) as Annotation['rect'];
    const [left, top] = [Math.min(x1, x2), Math.min(y1, y2)];
    const box = Math.abs(y2 - y1);
    const height = Math.min(
      annotation.defaultAppearanceData?.fontSize || FIELD_LETTERS,
      box / Math.max(1, lines.length),
    );
    return lines.map((text, index) => ({
      text,
      x: left + FIELD_INSET,
      y: top + (lines.length === 1 && box < 3 * height ? (box - height) / 2 : index * 1.2 * height),
      width: Math.min(Math.abs(x2 - x1) - FIELD_INSET, (text.length * height) / 2),
      height,
      angle: 0,
    }));
  });
}

/** What was typed stands behind what is nearest to its left or above it, e.g. the question. */
function withTyped(drawn: readonly DrawnText[], typed: readonly DrawnText[]): DrawnText[] {
  const all = [...drawn];
  for (const text of typed) {
    const away = ({ x, y, width, height }: DrawnText): number =>
      y > text.y + text.height / 2 || x > text.x + text.width
        ? Infinity
        : Math.hypot(Math.max(0, text.y - y - height), Math.max(0, text.x - x - width));
    const distances = all.map((one) => (one.text.trim() === '' ? Infinity : away(one)));
    const nearest = min(distances)!;
    all.splice(nearest === Infinity ? all.length : distances.lastIndexOf(nearest) + 1, 0, text);
  }
  return all;
}

function wordsIn({ subtype, fieldType, fieldValue, password, textContent, contentsObj }: Annotation): string[] {
  if (subtype === 'FreeText') return linesIn(textContent?.join('\n') || contentsObj?.str);
  if (subtype !== 'Widget' || password || (fieldType !== 'Tx' && fieldType !== 'Ch')) return [];
  return linesIn(Array.isArray(fieldValue) ? fieldValue.join('\n') : fieldValue);
}

const linesIn = (text: unknown): string[] =>
  typeof text === 'string' ? text.split(/\r\n?|\n/u).filter((line) => line.trim() !== '') : [];

type Matrix = [number, number, number, number, number, number];

/** ISO 32000-2, section 8.3.4: the place of text is its own matrix, then the page's. */
function drawnText(
  { str, transform, width, height: long }: TextItem,
  style: TextStyle | undefined,
  [a, b, c, d, e, f]: Matrix,
): DrawnText {
  const [ta, tb, tc, td, te, tf] = transform as Matrix;
  const [right, down] = [a * ta + c * tb, b * ta + d * tb];
  const height = Math.hypot(a * tc + c * td, b * tc + d * td);
  const angle = Math.round((Math.atan2(down, right) * 180) / Math.PI);
  const ascent = (style?.ascent || USUAL_ASCENT) * height;
  const turned = (angle * Math.PI) / 180;
  if (style?.vertical) {
    // Signs stand below each other, their origin in the middle above: a line that is turned by a quarter.
    const [x, y] = [a * te + c * tf + e, b * te + d * tf + f];
    return { text: str, x: x + height / 2, y, width: long, height, angle: 90 };
  }
  return {
    text: str,
    x: a * te + c * tf + e + ascent * Math.sin(turned),
    y: b * te + d * tf + f - ascent * Math.cos(turned),
    width,
    height,
    angle: angle === -180 ? 180 : angle,
  };
}
