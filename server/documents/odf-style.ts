import type { Align, Look, Mark, Role, Run, Setting } from '#core/folio';
import type { Element } from '@xmldom/xmldom';
import { bullet, listNumber, type Counting } from './list-number.ts';
import { attribute, child, children, descendants, elements, numberOf } from './xml.ts';

/** Properties of styles, the nearest style's first. */
export interface OdfStyle {
  /** Its own name and those of the styles that it inherits from. */
  names: string[];
  text: Element[];
  paragraph: Element[];
  graphic: Element[];
  page: Element[];
  column: Element[];
}

export interface OdfStyles {
  /** A style with all that it inherits; the style of a family that nothing names is its default. */
  style(family: string, name: string | undefined): OdfStyle;
  list(name: string | undefined): ListStyle | undefined;
  /** How headings are numbered. */
  outline: ListStyle | undefined;
  language: string | undefined;
}

export interface ListStyle {
  marker(depth: number, numbers: readonly number[]): string;
  start(depth: number): number;
}

const COUNTINGS: Record<string, Counting> = {
  '1': 'decimal',
  a: 'lowerLetter',
  A: 'upperLetter',
  i: 'lowerRoman',
  I: 'upperRoman',
};

/** The styles of an OpenDocument file (ODF 1.3 Part 3, section 16): those of its content stand before the common ones. */
export function odfStyles(roots: readonly (Element | undefined)[]): OdfStyles {
  const styles = new Map<string, Element>();
  const defaults = new Map<string, Element>();
  const lists = new Map<string, Element>();
  let outline: Element | undefined;
  for (const root of roots)
    for (const section of elements(root)) {
      if (section.localName !== 'styles' && section.localName !== 'automatic-styles') continue;
      for (const style of elements(section)) {
        const name = attribute(style, 'style:name') ?? '';
        const key = `${attribute(style, 'style:family')} ${name}`;
        if (style.localName === 'style' && !styles.has(key)) styles.set(key, style);
        if (style.localName === 'default-style') defaults.set(attribute(style, 'style:family') ?? '', style);
        if (style.localName === 'outline-style') outline ??= style;
        if (style.localName === 'list-style' && !lists.has(name)) lists.set(name, style);
      }
    }

  const chainOf = (family: string, name: string | undefined): Element[] => {
    const chain: Element[] = [];
    let style = name === undefined ? undefined : styles.get(`${family} ${name}`);
    while (style && chain.length < 20) {
      chain.push(style);
      const parent = attribute(style, 'style:parent-style-name');
      style = parent === undefined ? undefined : (styles.get(`${family} ${parent}`) ?? styles.get(`graphic ${parent}`));
    }
    const fallback = defaults.get(family);
    return fallback ? [...chain, fallback] : chain;
  };
  const known = new Map<string, OdfStyle>();
  const text = defaults.get('paragraph') ?? defaults.get('graphic');
  const textProperties = child(text, 'text-properties');
  const [language, country] = [attribute(textProperties, 'fo:language'), attribute(textProperties, 'fo:country')];

  return {
    style: (family, name) => {
      const key = `${family} ${name}`;
      const found = known.get(key) ?? styleOf(name, chainOf(family, name));
      known.set(key, found);
      return found;
    },
    list: (name) => {
      const style = lists.get(name ?? '');
      return style && listStyle(style);
    },
    outline: outline && listStyle(outline),
    language:
      language && language !== 'none'
        ? country && country !== 'none'
          ? `${language}-${country}`
          : language
        : undefined,
  };
}

const styleOf = (name: string | undefined, chain: readonly Element[]): OdfStyle => {
  const parents = chain.map((style) => attribute(style, 'style:parent-style-name'));
  const all = (name: string): Element[] => chain.flatMap((style) => children(style, name));
  return {
    names: [name, ...parents].filter((one) => one !== undefined),
    text: all('text-properties'),
    paragraph: all('paragraph-properties'),
    graphic: all('graphic-properties'),
    page: all('drawing-page-properties'),
    column: all('table-column-properties'),
  };
};

/** The value of the nearest style that has one. */
export const property = (properties: readonly Element[], name: string): string | undefined =>
  properties.map((one) => attribute(one, name)).find((value) => value !== undefined);

export function marksOf(text: readonly Element[]): Mark[] {
  const position = property(text, 'style:text-position') ?? '';
  const marks: [Mark, boolean][] = [
    ['bold', ['bold', '600', '700', '800', '900'].includes(property(text, 'fo:font-weight') ?? '')],
    ['italic', ['italic', 'oblique'].includes(property(text, 'fo:font-style') ?? '')],
    ['underline', (property(text, 'style:text-underline-style') ?? 'none') !== 'none'],
    ['strike', (property(text, 'style:text-line-through-style') ?? 'none') !== 'none'],
    ['superscript', /^(super|[1-9])/.test(position)],
    ['subscript', /^(sub|-)/.test(position)],
  ];
  return marks.filter(([, set]) => set).map(([mark]) => mark);
}

export function lookOf(text: readonly Element[]): Look {
  const size = points(text.map((one) => attribute(one, 'fo:font-size')).find((value) => value?.endsWith('pt')));
  const color = colorOf(property(text, 'fo:color'));
  return { ...(size !== undefined && { size }), ...(color && { color }) };
}

/** Runs with what they do not say themselves: how they look where nothing is said about them alone. */
export const withLook = (runs: readonly Run[], look: Look): Run[] =>
  runs.map((run) => ({ ...run, look: { ...look, ...run.look } }));

export const alignOf = (paragraph: readonly Element[]): Align | undefined => {
  const align = property(paragraph, 'fo:text-align');
  return align === 'center' ? 'center' : align === 'end' || align === 'right' ? 'right' : undefined;
};

/** Names of styles that office programs bring along (common practice). */
const ROLES: Record<string, Role> = { Quotations: 'quotation', Caption: 'caption' };

/** What a paragraph is by its style, and how it is set (ODF 1.3 Part 3, 20.223 and 20.404). */
export function settingOf({ names, paragraph }: OdfStyle): Setting {
  const role = names.map((name) => ROLES[name]).find((found) => found !== undefined);
  const align = alignOf(paragraph);
  const rightToLeft = /^rl/u.test(property(paragraph, 'style:writing-mode') ?? '');
  return { ...(role && { role }), ...(align && { align }), ...(rightToLeft && { direction: 'rtl' }) };
}

export const colorOf = (value: string | undefined): string | undefined =>
  value && /^#[0-9a-f]{6}$/i.test(value) ? value.toLowerCase() : undefined;

const POINTS: Record<string, number> = { pt: 1, in: 72, cm: 72 / 2.54, mm: 72 / 25.4, pc: 12, px: 0.75 };

/** A length of ODF in points: `2.5cm`, `0.4in`, `12pt`. */
export function points(length: string | undefined): number | undefined {
  const [, value, unit] = /^(-?[\d.]+)(pt|in|cm|mm|pc|px)$/.exec(length ?? '') ?? [];
  return value === undefined ? undefined : Number(value) * POINTS[unit!]!;
}

function listStyle(style: Element): ListStyle {
  const levels = new Map(elements(style).map((level) => [(numberOf(level, 'text:level') ?? 1) - 1, level]));
  return {
    start: (depth) => numberOf(levels.get(depth), 'text:start-value') ?? 1,
    marker: (depth, numbers) => {
      const level = levels.get(depth);
      if (level?.localName !== 'list-level-style-number' && level?.localName !== 'outline-level-style')
        return level ? bullet(attribute(level, 'text:bullet-char')) : '•';
      const shown = Math.max(1, numberOf(level, 'text:display-levels') ?? 1);
      const parts = numbers.slice(Math.max(0, depth + 1 - shown), depth + 1).map((number, index) => {
        const format = attribute(levels.get(depth + 1 - Math.min(shown, depth + 1) + index), 'style:num-format') ?? '1';
        return listNumber(number, COUNTINGS[format] ?? 'decimal');
      });
      const affix = (name: string): string => attribute(level, name) ?? '';
      const format = attribute(level, 'style:num-format');
      if (format === undefined && level.localName === 'outline-level-style') return '';
      return format === '' ? '' : `${affix('style:num-prefix')}${parts.join('.')}${affix('style:num-suffix')}`;
    },
  };
}

/** Elements that hold what was struck while changes were tracked, comments, and other things that are not the text. */
export const withoutTracked = (root: Element): Element => {
  for (const name of ['tracked-changes', 'annotation', 'annotation-end', 'forms', 'sequence-decls'])
    for (const element of descendants(root, name)) element.parentNode?.removeChild(element);
  return root;
};
