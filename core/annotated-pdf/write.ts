import {
  EncryptedPDFError,
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFHexString,
  PDFName,
  type PDFRef,
  PDFString,
  type PDFPage,
} from '@cantoo/pdf-lib';
import type { Mark, PlaceOnPage } from '../marked/index.ts';
import { writeNumber, type Ground } from './number.ts';
import { toUserSpace } from './page-space.ts';
import { unseenFont, writeUnseen, type PicturedWord } from './unseen-text.ts';

/** Why a file is not marked. */
export type Refusal = 'protected' | 'unreadable';

export class CannotMark extends Error {
  constructor(readonly why: Refusal) {
    super(why);
  }
}

interface HowMarked<OfMark> {
  marks: readonly OfMark[];
  /** Whoever knows that a signature does not hold for a copy with marks in it gets one all the same. */
  copy: boolean;
}

/** Something that is no file with pages, as pictures of them: PNG, and its size on paper in points. */
export interface PicturedPage {
  png: Uint8Array;
  width: number;
  height: number;
  /** What can be read on it. */
  words: readonly PicturedWord[];
}

export type ToMark<OfMark = Mark> = HowMarked<OfMark> &
  (
    | { format: 'pdf'; bytes: Uint8Array }
    /** A picture becomes a page of its own size: as it stands upright, in pixels. */
    | { format: 'png' | 'jpeg'; bytes: Uint8Array; size?: { width: number; height: number } | undefined }
    | { format: 'pages'; pages: readonly PicturedPage[] }
  );

const HIGHLIGHT_OPACITY = 0.35;
const EDGE = 2;

/**
 * Writes marks into a PDF as annotations (ISO 32000-2, section 12.5.6), each with its appearance, so that every reader shows the
 * same.
 * @throws CannotMark
 */
export async function writeMarks(work: ToMark): Promise<Uint8Array> {
  const { marks } = work;
  const document = await documentOf(work);
  const pages = document.getPages();
  const written = marks.flatMap((mark) => {
    const page = pages[mark.page];
    if (!page) return [];
    const ground = groundOf(page);
    const annotation = annotate(document, page, mark, ground);
    page.node.addAnnot(annotation);
    return [{ page, annotation, mark, ground }];
  });
  for (const { page, mark, ground } of written) writeNumber(document, page, mark, ground);
  // Only when all are written: each is placed by the page as it was.
  for (const { page, annotation, mark } of written)
    if (mark.type === 'stroke' || mark.type === 'label') makeRoom(document, page, annotation);
  return document.save({ useObjectStreams: false });
}

function documentOf(work: ToMark): Promise<PDFDocument> {
  if (work.format === 'pdf') return opened(work.bytes, work.copy);
  if (work.format === 'pages') return PDFDocument.create().then((document) => addPages(document, work.pages));
  return pictured(work.bytes, work.format, work.size);
}

/**
 * A marked file with pictured pages behind its own; the file as it is where it was locked, which cannot be opened a second time. Its
 * annotations hold the words of the remarks.
 */
export async function withPages(pdf: Uint8Array, pages: readonly PicturedPage[]): Promise<Uint8Array> {
  const document = await opened(pdf, true).catch(() => undefined);
  if (!document) return pdf;
  await addPages(document, pages);
  return document.save({ useObjectStreams: false });
}

async function addPages(document: PDFDocument, pages: readonly PicturedPage[]): Promise<PDFDocument> {
  const font = unseenFont(
    document,
    pages.flatMap(({ words }) => words),
  );
  for (const { png, width, height, words } of pages) {
    const picture = await document.embedPng(png);
    const page = document.addPage([width, height]);
    page.drawImage(picture, { x: 0, y: 0, width, height });
    writeUnseen(page, font, words);
  }
  return document;
}

/** What was written on the free paper beside a page is seen as well: the page grows as far. */
function makeRoom(document: PDFDocument, page: PDFPage, annotation: PDFRef): void {
  const [left, bottom, right, top] = document.context
    .lookup(annotation, PDFDict)
    .lookup(PDFName.of('Rect'), PDFArray)
    .asArray()
    .map(Number) as [number, number, number, number];
  const grown = ({ x, y, width, height }: ReturnType<PDFPage['getCropBox']>): [number, number, number, number] => {
    const [from, under] = [Math.min(x, left), Math.min(y, bottom)];
    return [from, under, Math.max(x + width, right) - from, Math.max(y + height, top) - under];
  };
  page.setMediaBox(...grown(page.getMediaBox()));
  page.setCropBox(...grown(page.getCropBox()));
}

async function opened(bytes: Uint8Array, copy: boolean): Promise<PDFDocument> {
  const unreadable = (): never => {
    throw new CannotMark('unreadable');
  };
  // What is locked against changes can be read without a password; what is written then has no lock.
  const locked = (error: unknown) =>
    error instanceof EncryptedPDFError
      ? PDFDocument.load(bytes, { updateMetadata: false, password: '' }).then((document) => ({ document, free: false }))
      : unreadable();
  const { document, free } = await PDFDocument.load(bytes, { updateMetadata: false })
    .then((opened) => ({ document: opened, free: true }), locked)
    .catch(unreadable);
  try {
    // What is no PDF at all is found out only when its pages are looked for.
    document.getPages();
  } catch {
    unreadable();
  }
  if (!copy && (!free || isSigned(document))) throw new CannotMark('protected');
  return document;
}

async function pictured(
  bytes: Uint8Array,
  format: 'png' | 'jpeg',
  size?: { width: number; height: number },
): Promise<PDFDocument> {
  const document = await PDFDocument.create();
  const picture = await (format === 'png' ? document.embedPng(bytes) : document.embedJpg(bytes)).catch(() => {
    throw new CannotMark('unreadable');
  });
  const { width, height } = size ?? picture;
  document.addPage([width, height]).drawImage(picture, { x: 0, y: 0, width, height });
  return document;
}

/** ISO 32000-2, section 12.7.3, SigFlags: there are signatures, or the file may only be appended to. */
function isSigned(document: PDFDocument): boolean {
  const form = document.catalog.lookupMaybe(PDFName.of('AcroForm'), PDFDict);
  return form !== undefined && /[123]/.test(String(form.get(PDFName.of('SigFlags')) ?? ''));
}

function groundOf(page: PDFPage): Ground {
  const { x, y, width, height } = page.getCropBox();
  const unit = Number(String(page.node.get(PDFName.of('UserUnit')) ?? 1)) || 1;
  const rotate = page.getRotation().angle;
  return {
    user: toUserSpace({ box: [x, y, x + width, y + height], rotate, userUnit: unit }),
    ...{ unit, wide: (rotate % 180 === 0 ? width : height) * unit },
  };
}

function annotate(document: PDFDocument, page: PDFPage, mark: Mark, { user, unit }: Ground) {
  const { context } = document;
  const colour = rgb(mark.colour);
  const flat = (places: readonly PlaceOnPage[]): number[] => places.flatMap((place) => [...user(place)]);
  const common = {
    Type: 'Annot',
    T: PDFHexString.fromText(mark.by),
    ...(mark.words !== '' && { Contents: PDFHexString.fromText(mark.words) }),
    M: PDFString.fromDate(new Date(mark.at)),
    C: colour,
    F: 4,
    P: page.ref,
  };
  const made = (entries: Record<string, unknown>, places: readonly PlaceOnPage[], drawing?: Drawing, room = EDGE) => {
    const rect = around(places.map(user), room);
    return context.register(
      context.obj({
        ...common,
        ...entries,
        Rect: rect,
        ...(drawing && { AP: { N: context.register(appearance(document, rect, drawing)) } }),
      } as never),
    );
  };

  switch (mark.type) {
    case 'highlight': {
      const corners = mark.quads.flat();
      const fill = mark.quads.map(([a, b, c, d]) => polygon([a!, b!, d!, c!].map(user), 'f')).join('\n');
      return made({ Subtype: 'Highlight', QuadPoints: flat(corners), CA: HIGHLIGHT_OPACITY }, corners, {
        ...{ operators: `${colour.join(' ')} rg\n${fill}`, opacity: HIGHLIGHT_OPACITY },
      });
    }
    case 'box': {
      const [left, top, right, bottom] = mark.box;
      const corners: PlaceOnPage[] = [
        [left, top],
        [right, top],
        [right, bottom],
        [left, bottom],
      ];
      return made({ Subtype: 'Square', BS: { W: 1.5 } }, corners, {
        operators: `${colour.join(' ')} RG 1.5 w\n${polygon(corners.map(user), 's')}`,
      });
    }
    case 'note': {
      const [x, y] = mark.place;
      return made({ Subtype: 'Text', Name: 'Comment', F: 28 }, [mark.place, [x + 20, y + 20]], undefined, 0);
    }
    case 'label': {
      const [x, y] = mark.place;
      const reach = mark.text.length * mark.size * 0.6;
      const style = `${colour.join(' ')} rg /Helv ${mark.size.toFixed(1)} Tf`;
      return made(
        {
          Subtype: 'FreeText',
          Contents: PDFHexString.fromText(mark.text),
          DA: PDFString.of(style),
          C: [],
          BS: { W: 0 },
        },
        [
          [x, y - mark.size * 1.2],
          [x + reach, y + mark.size * 0.4],
        ],
      );
    }
    case 'stroke': {
      const { tool, trace, lines, outline, width } = mark;
      const pale = tool === 'highlighter' ? { opacity: HIGHLIGHT_OPACITY } : {};
      const drawing: Drawing =
        outline.length > 0
          ? { operators: `${colour.join(' ')} rg\n${polygon(outline.map(user), 'f')}`, ...pale }
          : {
              operators: `${colour.join(' ')} RG ${number(width / unit)} w 1 J 1 j\n${lines
                .map((line) => polyline(line.map(user)))
                .join('\n')}`,
            };
      const border = { BS: { W: width / unit } };
      const all = [...trace, ...outline, ...lines.flat()];
      const ends = [trace[0]!, trace.at(-1)!];
      const room = EDGE + width / unit;
      if (tool === 'line' || tool === 'arrow') {
        const LE = ['None', tool === 'arrow' ? 'OpenArrow' : 'None'].map((name) => PDFName.of(name));
        return made({ Subtype: 'Line', L: flat(ends), LE, ...border }, all, drawing, room);
      }
      if (tool === 'rectangle' || tool === 'ellipse')
        return made({ Subtype: tool === 'ellipse' ? 'Circle' : 'Square', ...border }, all, drawing, room);
      const CA = pale.opacity ?? 1;
      return made({ Subtype: 'Ink', InkList: [flat(trace)], CA, ...border }, all, drawing, room);
    }
  }
}

interface Drawing {
  /** Of a content stream, in user space. */
  operators: string;
  opacity?: number;
}

/** ISO 32000-2, section 12.5.5: a form whose box is the rectangle of its annotation. */
function appearance(document: PDFDocument, rect: number[], { operators, opacity }: Drawing) {
  const { context } = document;
  const state = opacity === undefined ? '' : '/See gs\n';
  return context.flateStream(`q\n${state}${operators}\nQ`, {
    ...{ Type: 'XObject', Subtype: 'Form', FormType: 1, BBox: rect },
    Resources:
      opacity === undefined
        ? {}
        : { ExtGState: { See: { Type: 'ExtGState', ca: opacity, CA: opacity, BM: 'Multiply' } } },
  } as never);
}

const number = (value: number): string => value.toFixed(2);
const moves = (places: readonly PlaceOnPage[]): string =>
  places.map(([x, y], index) => `${number(x)} ${number(y)} ${index === 0 ? 'm' : 'l'}`).join(' ');
const polygon = (places: readonly PlaceOnPage[], paint: 'f' | 's'): string => `${moves(places)} h ${paint}`;
const polyline = (places: readonly PlaceOnPage[]): string => `${moves(places)} S`;

const rgb = (hex: string): number[] =>
  [1, 3, 5].map((at) => Math.round((parseInt(hex.slice(at, at + 2), 16) / 255) * 1000) / 1000);

function around(places: readonly PlaceOnPage[], room: number): number[] {
  const [xs, ys] = [places.map(([x]) => x), places.map(([, y]) => y)];
  return [Math.min(...xs) - room, Math.min(...ys) - room, Math.max(...xs) + room, Math.max(...ys) + room];
}
