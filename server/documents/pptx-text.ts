import type { Align, Mark, Run, Setting, TextBlock } from '#core/folio';
import type { Element } from '@xmldom/xmldom';
import { bullet, listNumber, type Counting } from './list-number.ts';
import type { Colors } from './pptx-color.ts';
import type { Part } from './pptx-part.ts';
import { attribute, child, children, descendants, elements, numberOf, path } from './xml.ts';

export interface TextContext {
  /** Elements with `lvl1pPr` … `lvl9pPr`, the nearest first: what a paragraph does not say itself, these say. */
  styles: readonly (Element | undefined)[];
  colors: Colors;
  targets: Part['targets'];
  /** An equation, where the presentation has any. */
  equation?: Equation | undefined;
  /** Whether it is the title of its slide. */
  title: boolean;
  /** How words look that do not say it themselves, e.g. by the style of their table. */
  usual?: { color: string | undefined; bold: boolean } | undefined;
}

export type Equation = (element: Element) => Run;

/** The only links that are kept. */
const SAFE_LINK = /^(https?:\/\/|mailto:)/i;
const ALIGNS: Record<string, Align> = { l: 'left', ctr: 'center', r: 'right', just: 'left' };
const DEFAULT_SIZE = 18;

const COUNTINGS: readonly (readonly [prefix: string, counting: Counting])[] = [
  ['arabic', 'decimal'],
  ['alphaLc', 'lowerLetter'],
  ['alphaUc', 'upperLetter'],
  ['romanLc', 'lowerRoman'],
  ['romanUc', 'upperRoman'],
];

/** The paragraphs of a shape or cell (ECMA-376 Part 1, section 21.1.2). */
export function paragraphsOf(body: Element | undefined, context: TextContext): TextBlock[] {
  const scale = (numberOf(path(body, 'bodyPr', 'normAutofit'), 'fontScale') ?? 100_000) / 100_000;
  const counts = new Map<number, number>();
  return children(body, 'p').map((paragraph): TextBlock => {
    const properties = child(paragraph, 'pPr');
    const depth = numberOf(properties, 'lvl') ?? 0;
    const levels = [
      properties,
      ...[child(body, 'lstStyle'), ...context.styles].map((style) => child(style, `lvl${depth + 1}pPr`)),
    ];
    const runs = runsOf(paragraph, levels, scale, context);
    const alignment = ALIGNS[firstAttribute(levels, 'algn') ?? ''];
    const rightToLeft = ['1', 'true'].includes(firstAttribute(levels, 'rtl') ?? '');
    const setting: Setting = rightToLeft
      ? { direction: 'rtl', ...(alignment && alignment !== 'right' && { align: alignment }) }
      : alignment && alignment !== 'left'
        ? { align: alignment }
        : {};
    if (context.title) return { type: 'heading', level: 1, runs, ...setting };
    const marker = runs.length > 0 ? markerOf(levels, depth, counts) : undefined;
    return marker === undefined
      ? { type: 'paragraph', runs, ...setting }
      : { type: 'item', depth, marker, runs, ...setting };
  });
}

const firstAttribute = (levels: readonly (Element | undefined)[], name: string): string | undefined =>
  levels.map((level) => attribute(level, name)).find((value) => value !== undefined);

function markerOf(
  levels: readonly (Element | undefined)[],
  depth: number,
  counts: Map<number, number>,
): string | undefined {
  for (const level of levels) {
    const mark = elements(level).find(({ localName }) =>
      ['buNone', 'buChar', 'buAutoNum', 'buBlip'].includes(localName!),
    );
    if (!mark) continue;
    for (const deeper of [...counts.keys()]) if (deeper > depth) counts.delete(deeper);
    if (mark.localName !== 'buAutoNum') counts.delete(depth);
    if (mark.localName === 'buNone') return undefined;
    if (mark.localName !== 'buAutoNum') return bullet(attribute(mark, 'char'));
    const type = attribute(mark, 'type') ?? 'arabicPeriod';
    const number = counts.has(depth) ? counts.get(depth)! + 1 : (numberOf(mark, 'startAt') ?? 1);
    counts.set(depth, number);
    const counting = COUNTINGS.find(([prefix]) => type.startsWith(prefix))?.[1] ?? 'decimal';
    const text = listNumber(number, counting);
    return type.endsWith('ParenBoth')
      ? `(${text})`
      : type.endsWith('ParenR')
        ? `${text})`
        : type.endsWith('Period')
          ? `${text}.`
          : text;
  }
  return undefined;
}

function runsOf(
  paragraph: Element,
  levels: readonly (Element | undefined)[],
  scale: number,
  context: TextContext,
): Run[] {
  const defaults = levels.map((level) => child(level, 'defRPr'));
  return elements(paragraph)
    .flatMap((element) => (element.localName === 'AlternateContent' ? elements(child(element, 'Choice')) : [element]))
    .flatMap((element): Run[] => {
      if (element.localName === 'm')
        return descendants(element, 'oMath').flatMap((one) => context.equation?.(one) ?? []);
      if (element.localName === 'br') return [{ text: '\n', marks: [] }];
      if (element.localName !== 'r' && element.localName !== 'fld') return [];
      const chain = [child(element, 'rPr'), ...defaults];
      const text = child(element, 't')?.textContent ?? '';
      const size = Number(firstAttribute(chain, 'sz') ?? DEFAULT_SIZE * 100) / 100;
      const [own, ...others] = chain.map((properties) => context.colors.color(child(properties, 'solidFill')));
      const color = own ?? context.usual?.color ?? others.find(Boolean);
      const marks = marksOf(chain);
      const bold = context.usual?.bold && attribute(chain[0], 'b') === undefined && !marks.includes('bold');
      const link = linkOf(chain[0], context);
      return [
        {
          text: text.replaceAll('\v', '\n'),
          marks: bold ? [...marks, 'bold'] : marks,
          ...(link && { link }),
          look: { size: Math.round(size * scale * 10) / 10, ...(color && { color }) },
        },
      ];
    })
    .filter(({ text }) => text !== '');
}

function marksOf(chain: readonly (Element | undefined)[]): Mark[] {
  const is = (name: string): boolean => ['1', 'true'].includes(firstAttribute(chain, name) ?? '');
  const baseline = Number(firstAttribute(chain, 'baseline') ?? 0);
  const marks: [Mark, boolean][] = [
    ['bold', is('b')],
    ['italic', is('i')],
    ['underline', (firstAttribute(chain, 'u') ?? 'none') !== 'none'],
    ['strike', (firstAttribute(chain, 'strike') ?? 'noStrike') !== 'noStrike'],
    ['superscript', baseline > 0],
    ['subscript', baseline < 0],
  ];
  return marks.filter(([, set]) => set).map(([mark]) => mark);
}

function linkOf(properties: Element | undefined, { targets }: TextContext): string | undefined {
  const target = targets.get(attribute(child(properties, 'hlinkClick'), 'r:id') ?? '');
  return target?.external && SAFE_LINK.test(target.name) ? target.name : undefined;
}
