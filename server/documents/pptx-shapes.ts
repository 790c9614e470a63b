import type { Block, Box, Geometry, Shape } from '#core/folio';
import type { Document, Element } from '@xmldom/xmldom';
import type { Colors } from './pptx-color.ts';
import { diagramTexts } from './docx-objects.ts';
import { pptxTable } from './pptx-table.ts';
import { paragraphsOf, type Equation } from './pptx-text.ts';
import { EMU_PER_POINT, type Part } from './pptx-part.ts';
import { attribute, child, descendants, elements, numberOf, path } from './xml.ts';

/** A slide with all that it inherits from. */
export interface SlideParts {
  slide: Part;
  layout: Part | undefined;
  master: Part | undefined;
  presentation: Part;
  colors: Colors;
  /** The styles that tables of the presentation name. */
  tableStyles: Element | undefined;
  equation: Equation | undefined;
  /** Another part of the presentation, by a relationship of the slide. */
  related(relation: string): Document | undefined;
}

type PictureNumber = (name: string) => number | undefined;

/** How the inside of a group is moved and stretched; in points. */
interface Frame {
  x: number;
  y: number;
  scaleX: number;
  scaleY: number;
}

const PAGE: Frame = { x: 0, y: 0, scaleX: 1, scaleY: 1 };
/** ECMA-376 Part 1, section 21.1.2.1.1: a tenth of an inch at the sides, half of that above and below. */
const INSETS = { tIns: 45_720, rIns: 91_440, bIns: 45_720, lIns: 91_440 };
const GEOMETRIES: Record<string, Geometry> = {
  rect: 'rectangle',
  roundRect: 'rounded',
  flowChartProcess: 'rectangle',
  flowChartTerminator: 'rounded',
  flowChartDecision: 'diamond',
  ellipse: 'ellipse',
  flowChartConnector: 'ellipse',
  triangle: 'triangle',
  diamond: 'diamond',
  rightArrow: 'arrow',
  line: 'line',
  straightConnector1: 'line',
};
const ALIGNS = { t: 'top', ctr: 'middle', b: 'bottom' } as const;

/** All shapes of a slide from back to front: those of master and layout that are no placeholders, then its own. */
export function pptxShapes(parts: SlideParts, picture: PictureNumber): Shape[] {
  const { slide, layout, master } = parts;
  const shows = (part: Part | undefined): boolean => attribute(part?.root, 'showMasterSp') !== '0';
  const behind = [...(shows(slide) && shows(layout) ? [master] : []), ...(shows(slide) ? [layout] : [])];
  const drawn = behind.flatMap((part) =>
    part ? shapesIn(tree(part), PAGE, { parts, part, picture, own: false }) : [],
  );
  return [...drawn, ...shapesIn(tree(slide), PAGE, { parts, part: slide, picture, own: true })];
}

const tree = (part: Part): Element | undefined => path(part.root, 'cSld', 'spTree');

interface Walk {
  parts: SlideParts;
  /** The part that the shapes stand in. */
  part: Part;
  picture: PictureNumber;
  /** Whether they are the slide's own, with words, or scenery of its master. */
  own: boolean;
}

function shapesIn(parent: Element | undefined, frame: Frame, walk: Walk): Shape[] {
  return elements(parent).flatMap((element) => {
    switch (element.localName) {
      case 'sp':
      case 'cxnSp':
        return shapeOf(element, frame, walk);
      case 'pic':
        return pictureOf(element, frame, walk);
      case 'graphicFrame':
        return walk.own ? frameOf(element, frame, walk) : [];
      case 'grpSp':
        return shapesIn(element, inside(element, frame), walk);
      case 'AlternateContent':
        return shapesIn(chosen(element), frame, walk);
      default:
        return [];
    }
  });
}

/** The older form of what is new, but for equations, of which it is only a picture. */
function chosen(alternate: Element): Element | undefined {
  const choice = child(alternate, 'Choice');
  const hasEquation = descendants(choice, 'oMath').length > 0;
  return hasEquation ? choice : (child(alternate, 'Fallback') ?? choice);
}

function inside(group: Element, frame: Frame): Frame {
  const transform = path(group, 'grpSpPr', 'xfrm');
  const outer = transform && boxOf(transform, PAGE);
  const [offset, extent] = [child(transform, 'chOff'), child(transform, 'chExt')];
  if (!outer || !extent) return frame;
  const size = {
    width: (numberOf(extent, 'cx') ?? 0) / EMU_PER_POINT,
    height: (numberOf(extent, 'cy') ?? 0) / EMU_PER_POINT,
  };
  const scaleX = size.width > 0 ? outer.width / size.width : 1;
  const scaleY = size.height > 0 ? outer.height / size.height : 1;
  const from = { x: (numberOf(offset, 'x') ?? 0) / EMU_PER_POINT, y: (numberOf(offset, 'y') ?? 0) / EMU_PER_POINT };
  return {
    x: frame.x + (outer.x - from.x * scaleX) * frame.scaleX,
    y: frame.y + (outer.y - from.y * scaleY) * frame.scaleY,
    scaleX: frame.scaleX * scaleX,
    scaleY: frame.scaleY * scaleY,
  };
}

function boxOf(transform: Element | undefined, frame: Frame): Box | undefined {
  const [offset, extent] = [child(transform, 'off'), child(transform, 'ext')];
  if (!offset || !extent) return undefined;
  const points = (element: Element, name: string): number => (numberOf(element, name) ?? 0) / EMU_PER_POINT;
  return {
    x: frame.x + points(offset, 'x') * frame.scaleX,
    y: frame.y + points(offset, 'y') * frame.scaleY,
    width: points(extent, 'cx') * frame.scaleX,
    height: points(extent, 'cy') * frame.scaleY,
  };
}

function turn(transform: Element | undefined): Pick<Shape, 'rotation' | 'flipped'> {
  const rotation = (numberOf(transform, 'rot') ?? 0) / 60_000;
  const [horizontal, vertical] = [attribute(transform, 'flipH') === '1', attribute(transform, 'flipV') === '1'];
  return {
    ...(rotation !== 0 && { rotation }),
    ...((horizontal || vertical) && { flipped: { horizontal, vertical } }),
  };
}

/** What a placeholder stands for on layout and master: found by its number, else by its type. */
function inherited(element: Element, { layout, master }: SlideParts): Element[] {
  const place = placeholder(element);
  if (!place) return [];
  const [index, type] = [attribute(place, 'idx'), attribute(place, 'type') ?? 'body'];
  const all = (part: Part | undefined): Element[] => (part ? descendants(tree(part), 'sp') : []);
  const typeOf = (shape: Element): string => attribute(placeholder(shape), 'type') ?? 'body';
  const onLayout =
    (index !== undefined &&
      all(layout).find((shape) => placeholder(shape) && attribute(placeholder(shape), 'idx') === index)) ||
    all(layout).find((shape) => placeholder(shape) && alike(typeOf(shape), type));
  const wanted = onLayout ? typeOf(onLayout) : type;
  const onMaster = all(master).find((shape) => placeholder(shape) && alike(typeOf(shape), wanted));
  return [onLayout, onMaster].filter((shape): shape is Element => !!shape);
}

const FAMILIES: Record<string, string> = { ctrTitle: 'title', subTitle: 'body', obj: 'body' };
const alike = (one: string, other: string): boolean => (FAMILIES[one] ?? one) === (FAMILIES[other] ?? other);

const placeholder = (shape: Element): Element | undefined =>
  elements(shape)
    .filter(({ localName }) => localName?.startsWith('nv'))
    .map((names) => path(names, 'nvPr', 'ph'))
    .find(Boolean);

const description = (shape: Element): string | undefined => {
  const names = elements(shape).find(({ localName }) => localName?.startsWith('nv'));
  return attribute(child(names, 'cNvPr'), 'descr') || undefined;
};

function shapeOf(element: Element, frame: Frame, walk: Walk): Shape[] {
  const { parts, own } = walk;
  if (!own && placeholder(element)) return [];
  const chain = [element, ...inherited(element, parts)];
  const properties = chain.map((shape) => child(shape, 'spPr'));
  const transform = properties.map((one) => child(one, 'xfrm')).find((one) => child(one, 'off'));
  const box = boxOf(transform, properties[0] && child(properties[0], 'xfrm') ? frame : PAGE);
  const blocks = own ? textOf(element, chain, walk) : [];
  if (!box) return [];
  const shape: Shape = {
    ...box,
    ...turn(transform),
    geometry: GEOMETRIES[attribute(child(properties[0], 'prstGeom'), 'prst') ?? ''] ?? 'rectangle',
    ...paint(element, properties, parts.colors),
    ...textBox(chain),
    blocks,
  };
  const fill = path(properties[0], 'blipFill', 'blip');
  const number = fill && pictureNumber(fill, walk);
  if (number !== undefined) shape.picture = number;
  const isSeen = shape.fill ?? shape.line ?? shape.picture ?? (blocks.some(hasWords) || undefined);
  return isSeen === undefined ? [] : [isUnseen(shape) ? { ...shape, geometry: 'none' } : shape];
}

const isUnseen = ({ fill, line, picture }: Shape): boolean =>
  fill === undefined && line === undefined && picture === undefined;

const hasWords = (block: Block): boolean =>
  block.type !== 'table' && block.type !== 'picture' && block.runs.some(({ text }) => text.trim() !== '');

function paint(
  element: Element,
  properties: readonly (Element | undefined)[],
  colors: Colors,
): Pick<Shape, 'fill' | 'line'> {
  const style = child(element, 'style');
  const filled = properties.find((one) => colors.isFilled(one));
  const byStyle = (name: string): string | undefined =>
    attribute(child(style, name), 'idx') === '0' ? undefined : colors.color(child(style, name));
  const fill = filled ? colors.fill(filled) : byStyle('fillRef');
  const outline = properties.map((one) => child(one, 'ln')).find(Boolean);
  const color = outline && colors.isFilled(outline) ? colors.fill(outline) : byStyle('lnRef');
  const width = (numberOf(outline, 'w') ?? 9_525) / EMU_PER_POINT;
  return { ...(fill && { fill }), ...(color && { line: { color, width } }) };
}

function textBox(chain: readonly Element[]): Pick<Shape, 'align' | 'fit' | 'inset'> {
  const bodies = chain.map((shape) => path(shape, 'txBody', 'bodyPr'));
  const first = (name: string): string | undefined =>
    bodies.map((body) => attribute(body, name)).find((value) => value !== undefined);
  const inset = (['tIns', 'rIns', 'bIns', 'lIns'] as const).map(
    (name) => Number(first(name) ?? INSETS[name]) / EMU_PER_POINT,
  );
  // The program has made its letters smaller; ours are of another font.
  const fits = child(bodies[0], 'normAutofit') !== undefined;
  return {
    ...(fits && { fit: true }),
    align: ALIGNS[(first('anchor') ?? 't') as keyof typeof ALIGNS] ?? 'top',
    inset: inset as [number, number, number, number],
  };
}

function textOf(element: Element, chain: readonly Element[], { parts, part }: Walk): Block[] {
  const { master, presentation, colors } = parts;
  const type =
    FAMILIES[attribute(placeholder(chain.at(-1)!), 'type') ?? ''] ?? attribute(placeholder(chain.at(-1)!), 'type');
  const isPlaceholder = placeholder(element) !== undefined;
  const family = !isPlaceholder
    ? 'otherStyle'
    : type === 'title'
      ? 'titleStyle'
      : type === undefined || type === 'body'
        ? 'bodyStyle'
        : 'otherStyle';
  const styles = [
    ...chain.slice(1).map((shape) => path(shape, 'txBody', 'lstStyle')),
    path(master?.root, 'txStyles', family),
    child(presentation.root, 'defaultTextStyle'),
  ];
  // The colour that a shape's own style gives to its words stands before what the master says.
  const blocks = paragraphsOf(child(element, 'txBody'), {
    styles,
    colors,
    targets: part.targets,
    title: isPlaceholder && type === 'title',
    equation: parts.equation,
  });
  const font = colors.color(path(element, 'style', 'fontRef'));
  const last = blocks.findLastIndex((block) => block.runs.length > 0);
  const written = blocks.slice(0, last + 1);
  if (!font) return written;
  return written.map((block) => ({
    ...block,
    runs: block.runs.map((run) => ({
      ...run,
      look: { ...run.look, color: ownColor(element) ? run.look?.color : font },
    })),
  }));
}

/** Whether the words of a shape say their colour themselves. */
const ownColor = (element: Element): boolean =>
  descendants(child(element, 'txBody'), 'rPr').some((properties) => child(properties, 'solidFill'));

function pictureNumber(blip: Element, { part, picture }: Walk): number | undefined {
  const target = part.targets.get(attribute(blip, 'r:embed') ?? '');
  return target && !target.external ? picture(target.name) : undefined;
}

function pictureOf(element: Element, frame: Frame, walk: Walk): Shape[] {
  const properties = child(element, 'spPr');
  const place = [element, ...inherited(element, walk.parts)]
    .map((shape) => path(shape, 'spPr', 'xfrm'))
    .find((one) => child(one, 'off'));
  const box = boxOf(place, frame);
  if (!box) return [];
  const blip = path(element, 'blipFill', 'blip');
  const number = blip && pictureNumber(blip, walk);
  const crop = cropOf(path(element, 'blipFill', 'srcRect'));
  const alt = description(element);
  const { line } = paint(element, [properties], walk.parts.colors);
  return [
    {
      ...box,
      ...turn(child(properties, 'xfrm')),
      geometry: 'rectangle',
      ...(number !== undefined && { picture: number }),
      ...(crop && { crop }),
      ...(alt && { alt }),
      ...(line && { line }),
      blocks: [],
    },
  ];
}

function cropOf(rect: Element | undefined): Shape['crop'] {
  const sides = ['t', 'r', 'b', 'l'].map((side) => (numberOf(rect, side) ?? 0) / 100_000);
  return sides.some((side) => side > 0) ? (sides as [number, number, number, number]) : undefined;
}

function frameOf(element: Element, frame: Frame, walk: Walk): Shape[] {
  const box = boxOf(child(element, 'xfrm'), frame);
  if (!box) return [];
  const table = path(element, 'graphic', 'graphicData', 'tbl');
  const alt = description(element) ?? attribute(path(element, 'nvGraphicFramePr', 'cNvPr'), 'name');
  const diagram = diagramTexts(
    walk.parts.related(attribute(path(element, 'graphic', 'graphicData', 'relIds'), 'r:dm') ?? ''),
  );
  if (!table)
    return [
      {
        ...box,
        geometry: 'rectangle',
        line: { color: '#8a8378', width: 0.75 },
        ...(alt && { alt }),
        blocks: diagram.map(itemOf),
      },
    ];
  return [{ ...box, geometry: 'none', blocks: [pptxTable(table, walk)] }];
}

/** In letters that fit into most diagrams. */
const DIAGRAM_POINTS = 14;

const itemOf = (text: string): Block => ({
  type: 'item',
  depth: 0,
  marker: '•',
  runs: [{ text, marks: [], look: { size: DIAGRAM_POINTS } }],
});
