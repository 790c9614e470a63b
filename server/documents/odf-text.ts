import type { Block, Mark, Run, TextBlock } from '#core/folio';
import type { Element, Node } from '@xmldom/xmldom';
import { settingOf, lookOf, marksOf, type ListStyle, type OdfStyles } from './odf-style.ts';
import { odfTable } from './odf-table.ts';
import { attribute, child, children, elements, isElement, numberOf } from './xml.ts';

export interface OdfContext {
  styles: OdfStyles;
  /** The number of a picture of the package, or undefined where it cannot be shown. */
  picture(href: string): number | undefined;
  /** An equation that is kept as an object of its own. */
  equation(href: string): Run | undefined;
  /** The number of a picture that says what cannot be shown. */
  standIn(label: string): number;
  /** How far headings are counted, level by level. */
  headings: number[];
  /** How far lists are counted, by their ids and the names of their styles: a later one may go on. */
  lists: Map<string, number[]>;
  /** Whether sizes and colours come through, as on slides. */
  looks: boolean;
  /** Which style a template gives to each part of a table, by the name of the template. */
  templates: ReadonlyMap<string, ReadonlyMap<string, string>>;
  /** Footnotes are numbered through the document and stand at its end. */
  notes: { number: string; blocks: Block[] }[];
}

const SAFE_LINK = /^(https?:\/\/|mailto:)/i;

interface ListPlace {
  style: ListStyle | undefined;
  depth: number;
  numbers: number[];
}

/** The blocks of an OpenDocument text (ODF 1.3 Part 3, sections 5 and 9). */
export function odfBlocks(parent: Element | undefined, context: OdfContext): Block[] {
  return elements(parent).flatMap((element) => blockOf(element, context));
}

function blockOf(element: Element, context: OdfContext): Block[] {
  switch (element.localName) {
    case 'h': {
      const heading = numberOf(element, 'text:outline-level') ?? 1;
      return paragraph(element, context, { heading, marker: headingNumber(element, heading, context) });
    }
    case 'p':
      return paragraph(element, context, {});
    case 'list':
      return listBlocks(element, context, undefined);
    case 'table':
      return [odfTable(element, context, odfBlocks), ...picturesIn(element, context)];
    case 'frame':
      return frameBlocks(element, context);
    default:
      return HOLDERS.has(element.localName ?? '') || DRAWN.has(element.localName ?? '')
        ? odfBlocks(element, context)
        : [];
  }
}

/** What holds paragraphs (ODF 1.3 Part 3, sections 5.4 and 8). */
const HOLDERS = new Set([
  ...['section', 'text-box', 'numbered-paragraph', 'soft-page-break', 'index-body', 'index-title'],
  ...['table-of-content', 'illustration-index', 'table-index', 'object-index', 'user-index', 'alphabetical-index'],
  'bibliography',
]);

/** Drawings (section 10): they stand in the middle of a paragraph, and their words and pictures behind it. */
const DRAWN = new Set([
  ...['frame', 'g', 'a', 'custom-shape', 'rect', 'ellipse', 'circle', 'polygon', 'polyline', 'path', 'line'],
  ...['connector', 'regular-polygon', 'caption', 'measure', 'control'],
]);
const isDrawn = ({ localName, prefix }: Element): boolean =>
  DRAWN.has(localName ?? '') && (localName !== 'a' || prefix === 'draw');

/** Section 5.1.2: headings are numbered through the document, each level within the one above. */
function headingNumber(element: Element, level: number, { styles, headings }: OdfContext): string | undefined {
  if (!styles.outline || attribute(element, 'text:is-list-header') === 'true') return undefined;
  const depth = level - 1;
  headings.length = Math.min(headings.length, level);
  for (let above = 0; above <= depth; above++) headings[above] ??= styles.outline.start(above) - 1;
  const restarted = attribute(element, 'text:restart-numbering') === 'true';
  headings[depth] = restarted ? (numberOf(element, 'text:start-value') ?? 1) : headings[depth]! + 1;
  return styles.outline.marker(depth, headings) || undefined;
}

function paragraph(
  element: Element,
  context: OdfContext,
  as: { heading?: number; marker?: string | undefined; item?: { depth: number; marker: string } },
): Block[] {
  const style = context.styles.style('paragraph', attribute(element, 'text:style-name'));
  const runs = runsOf(element, context, style.text);
  const rest = { runs, ...settingOf(style) };
  const block: TextBlock = as.item
    ? { type: 'item', ...as.item, ...rest }
    : as.heading !== undefined
      ? {
          type: 'heading',
          level: Math.min(6, Math.max(1, as.heading)),
          ...(as.marker && { marker: as.marker }),
          ...rest,
        }
      : !context.looks && style.names.includes('Title')
        ? { type: 'heading', level: 1, ...rest }
        : { type: 'paragraph', ...rest };
  return [block, ...drawnIn(element).flatMap((drawn) => blockOf(drawn, context))];
}

/** Drawings of a paragraph, also those within parts of it that are set in another way. */
const drawnIn = (element: Element): Element[] =>
  elements(element).flatMap((inner) => {
    if (isDrawn(inner)) return [inner];
    return inner.localName === 'note' ? [] : drawnIn(inner);
  });

function listBlocks(list: Element, context: OdfContext, outer: ListPlace | undefined): Block[] {
  const own = context.styles.list(attribute(list, 'text:style-name'));
  const style = own ?? outer?.style;
  const depth = outer ? outer.depth + 1 : 0;
  const known = context.lists.get(attribute(list, 'text:continue-list') ?? attribute(list, 'text:style-name') ?? '');
  const goesOn =
    attribute(list, 'text:continue-numbering') === 'true' || attribute(list, 'text:continue-list') !== undefined;
  const numbers = outer?.numbers ?? (goesOn && known ? [...known] : []);
  if (!goesOn || numbers[depth] === undefined) numbers[depth] = (style?.start(depth) ?? 1) - 1;
  if (!outer)
    for (const name of [attribute(list, 'xml:id'), attribute(list, 'text:style-name')])
      if (name !== undefined) context.lists.set(name, numbers);
  return elements(list).flatMap((item) => {
    if (item.localName !== 'list-item' && item.localName !== 'list-header') return [];
    if (item.localName === 'list-item') numbers[depth] = numberOf(item, 'text:start-value') ?? numbers[depth]! + 1;
    const marker = item.localName === 'list-header' ? '' : (style?.marker(depth, numbers) ?? '•');
    let first = true;
    return elements(item).flatMap((element) => {
      if (element.localName === 'list') return listBlocks(element, context, { style, depth, numbers });
      if (element.localName === 'h')
        return paragraph(element, context, { heading: numberOf(element, 'text:outline-level') ?? 1, marker });
      if (element.localName !== 'p' || !first) return blockOf(element, context);
      first = false;
      return paragraph(element, context, { item: { depth, marker } });
    });
  });
}

/** Pictures of a table stand below it. */
const picturesIn = (element: Element, context: OdfContext): Block[] =>
  elements(element).flatMap((inner) =>
    inner.localName === 'frame'
      ? frameBlocks(inner, context).filter(({ type }) => type === 'picture')
      : picturesIn(inner, context),
  );

function frameBlocks(frame: Element, context: OdfContext): Block[] {
  const box = child(frame, 'text-box');
  if (box) return odfBlocks(box, context);
  const object = child(frame, 'object') ?? child(frame, 'object-ole');
  if (object && context.equation(attribute(object, 'xlink:href') ?? '')) return [];
  const images = children(frame, 'image');
  const image = images
    .map((one) => context.picture(attribute(one, 'xlink:href') ?? ''))
    .find((number) => number !== undefined);
  const alt = (child(frame, 'desc') ?? child(frame, 'title'))?.textContent ?? '';
  if (image !== undefined) return [{ type: 'picture', picture: image, alt }];
  // What is only decoration on a slide needs no word.
  if (context.looks || (!object && images.length === 0)) return [];
  const label = [object ? 'Object of another program' : 'Picture of a kind for printing', alt]
    .filter(Boolean)
    .join(': ');
  return [{ type: 'picture', picture: context.standIn(label), alt: label }];
}

interface Setting {
  marks: Mark[];
  look: Run['look'];
  link?: string | undefined;
}

/** The characters of a paragraph. White space is collapsed as ODF 1.3 Part 3, section 6.1.2, says. */
function runsOf(element: Element, context: OdfContext, text: readonly Element[]): Run[] {
  const runs: Run[] = [];
  const add = (characters: string, { marks, look, link }: Setting): void => {
    if (characters !== '') runs.push({ text: characters, marks, ...(link && { link }), ...(look && { look }) });
  };
  const endsInSpace = (): boolean => runs.length === 0 || /[ \n\t]$/.test(runs.at(-1)!.text);
  const setting = (chain: readonly Element[], link?: string): Setting => ({
    marks: marksOf(chain),
    look: context.looks ? lookOf(chain) : undefined,
    link,
  });
  const walk = (node: Node, chain: readonly Element[], link?: string): void => {
    for (const inner of Array.from(node.childNodes)) {
      if (!isElement(inner)) {
        if (inner.nodeType !== 3) continue;
        const collapsed = (inner.nodeValue ?? '').replace(/[ \t\n\r]+/g, ' ');
        add(endsInSpace() ? collapsed.replace(/^ /, '') : collapsed, setting(chain, link));
        continue;
      }
      switch (inner.localName) {
        case 's':
          add(' '.repeat(Math.min(1000, numberOf(inner, 'text:c') ?? 1)), setting(chain, link));
          break;
        case 'tab':
          add('\t', setting(chain, link));
          break;
        case 'line-break':
          add('\n', setting(chain, link));
          break;
        case 'span':
          walk(inner, [...context.styles.style('text', attribute(inner, 'text:style-name')).text, ...chain], link);
          break;
        case 'a': {
          if (isDrawn(inner)) break;
          const href = attribute(inner, 'xlink:href') ?? '';
          walk(inner, chain, SAFE_LINK.test(href) ? href : link);
          break;
        }
        case 'note':
          runs.push(noteCall(inner, context));
          break;
        case 'frame': {
          const run = context.equation(attribute(child(inner, 'object'), 'xlink:href') ?? '');
          if (run) runs.push(run);
          break;
        }
        case 'ruby-text':
        case 'desc':
        case 'title':
          break;
        default:
          if (!isDrawn(inner)) walk(inner, chain, link);
      }
    }
  };
  walk(element, text);
  return runs;
}

function noteCall(note: Element, context: OdfContext): Run {
  const number = child(note, 'note-citation')?.textContent ?? '';
  context.notes.push({ number, blocks: odfBlocks(child(note, 'note-body'), context) });
  return { text: '', marks: [], note: number };
}

/** Footnotes as a list at the end, each with its number. */
export const noteBlocks = ({ notes }: OdfContext): Block[] =>
  notes.flatMap(({ number, blocks }) =>
    blocks.map((block, index): Block =>
      index === 0 && block.type === 'paragraph' ? { ...block, type: 'item', depth: 0, marker: `${number}.` } : block,
    ),
  );
