import {
  isTextBlock,
  textBlocks,
  type Block,
  type Geometry,
  type Look,
  type Shape,
  type SlideLeaf,
  type TextBlock,
} from '#core/folio';
import type { Element } from '@xmldom/xmldom';
import { documentErrors, type DocumentPicture, type Reader } from './document.ts';
import { openOdf } from './odf.ts';
import { colorOf, lookOf, points, property, withLook, type OdfStyle } from './odf-style.ts';
import { odfBlocks, type OdfContext } from './odf-text.ts';
import { picturePoints } from './picture-points.ts';
import { unseenLeaves } from './unseen.ts';
import { attribute, child, children, descendants, elements } from './xml.ts';

const MAX_SLIDES = 500;
const GEOMETRIES: Record<string, Geometry> = {
  rectangle: 'rectangle',
  'round-rectangle': 'rounded',
  ellipse: 'ellipse',
  'isosceles-triangle': 'triangle',
  diamond: 'diamond',
  'right-arrow': 'arrow',
};
const ALIGNS: Record<string, Shape['align']> = { top: 'top', middle: 'middle', bottom: 'bottom' };
const SIZES: Record<string, number> = { title: 44, subtitle: 32, outline: 32 };

/** Reads an OpenDocument presentation (ODF 1.3 Part 3, section 3.6): each slide as the shapes that stand on it. */
export const readOdp: Reader = (bytes) => {
  const { body, styles, title, context, pictures, unseen } = openOdf(bytes, 'odp', 'presentation', true);
  const masters = new Map(
    descendants(styles, 'master-page').map((master) => [attribute(master, 'style:name') ?? '', master]),
  );
  const layouts = new Map(
    descendants(styles, 'page-layout').map((layout) => [
      attribute(layout, 'style:name') ?? '',
      child(layout, 'page-layout-properties'),
    ]),
  );
  const pages = children(body, 'page');
  if (pages.length > MAX_SLIDES) throw documentErrors.tooManyPages();
  if (pages.length === 0) throw documentErrors.withoutText();
  const leaves = pages.map((page, index): SlideLeaf => {
    const master = masters.get(attribute(page, 'draw:master-page-name') ?? '');
    const size = layouts.get(attribute(master, 'style:page-layout-name') ?? '');
    const walk: Walk = { context, master, pictures };
    return {
      kind: 'slide',
      label: `Slide ${index + 1}`,
      width: points(attribute(size, 'fo:page-width')) ?? 720,
      height: points(attribute(size, 'fo:page-height')) ?? 540,
      background: backgroundOf(page, master, context),
      shapes: [...scenery(master, walk), ...shapesIn(page, walk)],
      notes: notesOf(page, context),
    };
  });
  return {
    title: titleOf(leaves) ?? title,
    language: context.styles.language,
    leaves: [...leaves, ...unseenLeaves(unseen, pictures)],
    pictures,
  };
};

interface Walk {
  context: OdfContext;
  master: Element | undefined;
  pictures: readonly DocumentPicture[];
}

function backgroundOf(page: Element, master: Element | undefined, { styles }: OdfContext): string | undefined {
  const own = styles.style('drawing-page', attribute(page, 'draw:style-name')).page;
  const theirs = styles.style('drawing-page', attribute(master, 'draw:style-name')).page;
  for (const properties of [own, theirs])
    if (property(properties, 'draw:fill') === 'solid') return colorOf(property(properties, 'draw:fill-color'));
  return undefined;
}

/** What a master draws besides its placeholders; its words are not the student's. */
const scenery = (master: Element | undefined, walk: Walk): Shape[] =>
  shapesIn(master, walk, (element) => attribute(element, 'presentation:class') === undefined).map((shape) => ({
    ...shape,
    blocks: [],
  }));

function shapesIn(
  parent: Element | undefined,
  walk: Walk,
  wanted: (element: Element) => boolean = () => true,
): Shape[] {
  return elements(parent)
    .filter(wanted)
    .flatMap((element) => {
      switch (element.localName) {
        case 'g':
          return shapesIn(element, walk, wanted);
        case 'frame':
          return frameShape(element, walk);
        case 'rect':
        case 'ellipse':
        case 'circle':
        case 'custom-shape':
          return drawnShape(element, walk);
        case 'line':
        case 'connector':
          return lineShape(element, walk);
        default:
          return [];
      }
    });
}

const styleOf = (element: Element, { styles }: OdfContext): OdfStyle => {
  const presentation = attribute(element, 'presentation:style-name');
  return presentation === undefined
    ? styles.style('graphic', attribute(element, 'draw:style-name'))
    : styles.style('presentation', presentation);
};

/** A frame that does not say where it stands, stands where its master has the frame of its class. */
function boxOf(
  element: Element,
  { master }: Walk,
): Pick<Shape, 'x' | 'y' | 'width' | 'height' | 'rotation'> | undefined {
  const kind = attribute(element, 'presentation:class');
  const placeholder = elements(master).find(
    (frame) => kind !== undefined && attribute(frame, 'presentation:class') === kind,
  );
  const length = (name: string): number | undefined =>
    points(attribute(element, name)) ?? points(attribute(placeholder, name));
  const [width, height] = [length('svg:width'), length('svg:height')];
  if (width === undefined || height === undefined) return undefined;
  const transform = attribute(element, 'draw:transform');
  if (transform === undefined) return { x: length('svg:x') ?? 0, y: length('svg:y') ?? 0, width, height };
  return turned(transform, width, height);
}

/** `rotate (0.5) translate (2cm 3cm)`: the angle in radians against the clock, around the upper left corner. */
function turned(
  transform: string,
  width: number,
  height: number,
): Pick<Shape, 'x' | 'y' | 'width' | 'height' | 'rotation'> {
  const angle = -Number(/rotate\s*\(\s*(-?[\d.eE-]+)/.exec(transform)?.[1] ?? 0);
  const [, x, y] = /translate\s*\(\s*(\S+)\s+([^\s)]+)/.exec(transform) ?? [];
  const [left, top] = [points(x) ?? 0, points(y) ?? 0];
  // Shapes turn around their middle.
  const middle = {
    x: left + (Math.cos(angle) * width - Math.sin(angle) * height) / 2,
    y: top + (Math.sin(angle) * width + Math.cos(angle) * height) / 2,
  };
  return { x: middle.x - width / 2, y: middle.y - height / 2, width, height, rotation: (angle * 180) / Math.PI };
}

function frameShape(element: Element, walk: Walk): Shape[] {
  const box = boxOf(element, walk);
  if (!box || attribute(element, 'presentation:placeholder') === 'true') return [];
  const { context } = walk;
  const base = { ...box, ...paint(element, context), ...textPlace(element, context) };
  const alt = (child(element, 'desc') ?? child(element, 'title'))?.textContent ?? undefined;
  const table = child(element, 'table');
  if (table)
    return [{ ...base, geometry: 'none', blocks: odfBlocks(element, context).filter(({ type }) => type === 'table') }];
  const picture = children(element, 'image')
    .map((image) => context.picture(attribute(image, 'xlink:href') ?? ''))
    .find((number) => number !== undefined);
  if (picture !== undefined) {
    const crop = cropOf(element, walk, picture);
    return [{ ...base, geometry: 'rectangle', picture, ...(crop && { crop }), ...(alt && { alt }), blocks: [] }];
  }
  const textBox = child(element, 'text-box');
  if (!textBox) return [];
  const blocks = worded(
    odfBlocks(textBox, context),
    attribute(element, 'presentation:class'),
    styleOf(element, context),
    context,
  );
  const fits = shrinks(element, context) && { fit: true };
  return [{ ...base, geometry: base.fill || base.line ? 'rectangle' : 'none', ...fits, blocks }];
}

/** Whether letters become smaller until they fit (ODF 1.3 Part 3, 20.130, and the attribute that office programs write). */
function shrinks(element: Element, context: OdfContext): boolean {
  const { graphic } = styleOf(element, context);
  return (
    property(graphic, 'style:shrink-to-fit') === 'true' || property(graphic, 'draw:fit-to-size') === 'shrink-to-fit'
  );
}

/** What is cut off the edges of a picture (ODF 1.3 Part 3, 20.186), as shares of it. */
function cropOf(element: Element, { context, pictures }: Walk, picture: number): Shape['crop'] {
  const sides = (property(styleOf(element, context).graphic, 'fo:clip') ?? '')
    .replace(/^rect\(|\)$/gu, '')
    .split(/[\s,]+/u)
    .map((side) => Math.max(0, points(side) ?? 0));
  if (sides.length !== 4 || sides.every((side) => side === 0)) return undefined;
  const size = picturePoints(pictures[picture]!.bytes);
  if (!size) return undefined;
  const [top, right, bottom, left] = sides as [number, number, number, number];
  const crop = [top / size.height, right / size.width, bottom / size.height, left / size.width];
  return crop[0]! + crop[2]! < 1 && crop[1]! + crop[3]! < 1 ? (crop as Shape['crop']) : undefined;
}

function drawnShape(element: Element, walk: Walk): Shape[] {
  const box = boxOf(element, walk);
  if (!box) return [];
  const type = attribute(child(element, 'enhanced-geometry'), 'draw:type') ?? element.localName!;
  const geometry = type === 'circle' ? 'ellipse' : (GEOMETRIES[type] ?? 'rectangle');
  const { context } = walk;
  const blocks = worded(odfBlocks(element, context), undefined, styleOf(element, context), context);
  const fits = shrinks(element, context) && { fit: true };
  return [{ ...box, ...fits, geometry, ...paint(element, context), ...textPlace(element, context), blocks }];
}

function lineShape(element: Element, { context }: Walk): Shape[] {
  const [x1, y1, x2, y2] = ['svg:x1', 'svg:y1', 'svg:x2', 'svg:y2'].map((name) => points(attribute(element, name)));
  if (x1 === undefined || y1 === undefined || x2 === undefined || y2 === undefined) return [];
  const { line } = paint(element, context);
  const falling = x2 > x1 === y2 > y1;
  return [
    {
      x: Math.min(x1, x2),
      y: Math.min(y1, y2),
      width: Math.abs(x2 - x1),
      height: Math.abs(y2 - y1),
      geometry: 'line',
      line: line ?? { color: '#000000', width: 1 },
      ...(!falling && { flipped: { horizontal: false, vertical: true } }),
      blocks: [],
    },
  ];
}

function paint(element: Element, context: OdfContext): Pick<Shape, 'fill' | 'line'> {
  const { graphic } = styleOf(element, context);
  const fill = property(graphic, 'draw:fill') === 'solid' ? colorOf(property(graphic, 'draw:fill-color')) : undefined;
  const stroked =
    element.localName === 'frame'
      ? property(graphic, 'draw:stroke') === 'solid'
      : property(graphic, 'draw:stroke') !== 'none';
  const color = stroked ? (colorOf(property(graphic, 'svg:stroke-color')) ?? '#3465a4') : undefined;
  const width = Math.max(0.75, points(property(graphic, 'svg:stroke-width')) ?? 0);
  return { ...(fill && { fill }), ...(color && { line: { color, width } }) };
}

function textPlace(element: Element, context: OdfContext): Pick<Shape, 'align' | 'inset'> {
  const { graphic } = styleOf(element, context);
  const inset = ['top', 'right', 'bottom', 'left'].map(
    (side) => points(property(graphic, `fo:padding-${side}`)) ?? (side === 'top' || side === 'bottom' ? 3.6 : 7.2),
  );
  return {
    align: ALIGNS[property(graphic, 'draw:textarea-vertical-align') ?? ''] ?? 'top',
    inset: inset as [number, number, number, number],
  };
}

/**
 * The words of a shape: those without a size of their own have that of the shape, in an outline that of their level, and a title is a
 * heading.
 */
function worded(blocks: readonly Block[], kind: string | undefined, style: OdfStyle, { styles }: OdfContext): Block[] {
  const outline = style.names.find((name) => /outline1$/u.test(name))?.slice(0, -1);
  const lookAt = (depth: number): Look => {
    const { text } = depth > 0 && outline ? styles.style('presentation', `${outline}${depth + 1}`) : style;
    const { color } = lookOf(style.text);
    return { size: SIZES[kind ?? ''] ?? 18, ...(color && { color }), ...lookOf(text) };
  };
  const align = property(style.paragraph, 'fo:text-align');
  return blocks.filter(isTextBlock).map((block): TextBlock => {
    const runs = withLook(block.runs, lookAt(block.type === 'item' ? block.depth : 0));
    const where = block.align ?? (align === 'center' ? 'center' : align === 'end' ? 'right' : undefined);
    const rest = { runs, ...(where && { align: where }) };
    if (kind === 'title') return { type: 'heading', level: 1, ...rest };
    return block.type === 'item' && runs.length === 0 ? { type: 'paragraph', ...rest } : { ...block, ...rest };
  });
}

const notesOf = (page: Element, context: OdfContext): TextBlock[] =>
  children(child(page, 'notes'), 'frame')
    .flatMap((frame) => odfBlocks(child(frame, 'text-box'), { ...context, looks: false }))
    .filter(isTextBlock)
    .filter(({ runs }) => runs.some(({ text }) => text.trim() !== ''));

function titleOf(leaves: readonly SlideLeaf[]): string | undefined {
  const headings = leaves
    .flatMap(({ shapes }) => textBlocks(shapes.flatMap(({ blocks }) => blocks)))
    .filter(({ type }) => type === 'heading');
  return (
    headings[0]?.runs
      .map(({ text }) => text)
      .join('')
      .replace(/\s+/g, ' ')
      .trim() || undefined
  );
}
