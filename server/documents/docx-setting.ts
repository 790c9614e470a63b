import type { Role, Setting } from '#core/folio';
import type { Document, Element } from '@xmldom/xmldom';
import { attribute, child, children } from './xml.ts';

/** The longest chain of styles that is followed. */
const MOST_STYLES = 20;

/** Names of styles, which are the same in every language of the program (common practice). */
const ROLES: Record<string, Role> = {
  quote: 'quotation',
  'intense quote': 'quotation',
  quotations: 'quotation',
  'block text': 'quotation',
  caption: 'caption',
};

/**
 * What each paragraph is by its style, and the alignment and direction of it, from its own properties or its style (ECMA-376 Part 1, 17.3.1.6 and 17.3.1.13).
 * In a right-to-left paragraph, `start` is the right edge.
 */
export function docxSetting(styles: Document | undefined): (paragraph: Element) => Setting {
  const all = new Map(
    children(styles?.documentElement ?? undefined, 'style').map((style) => [attribute(style, 'styleId') ?? '', style]),
  );
  const usual = children(styles?.documentElement ?? undefined, 'style').find(
    (style) => attribute(style, 'type') === 'paragraph' && ['1', 'true'].includes(attribute(style, 'default') ?? ''),
  );
  return (paragraph) => {
    const own = child(paragraph, 'pPr');
    const chain = own ? [own] : [];
    let role: Role | undefined;
    const named = attribute(child(own, 'pStyle'), 'val');
    let style = named === undefined ? usual : all.get(named);
    for (let steps = 0; style && steps < MOST_STYLES; steps++) {
      role ??= ROLES[attribute(child(style, 'name'), 'val')?.toLowerCase() ?? ''];
      const properties = child(style, 'pPr');
      if (properties) chain.push(properties);
      style = all.get(attribute(child(style, 'basedOn'), 'val') ?? '');
    }
    const first = (name: string): Element | undefined =>
      chain.map((properties) => child(properties, name)).find((found) => found !== undefined);
    const bidi = first('bidi');
    const rightToLeft = bidi !== undefined && !['0', 'false', 'off'].includes(attribute(bidi, 'val') ?? '');
    const align = alignOf(attribute(first('jc'), 'val'), rightToLeft);
    return { ...(role && { role }), ...(align && { align }), ...(rightToLeft && { direction: 'rtl' }) };
  };
}

/** `left` is where a line begins, whatever the side (17.18.44, and its strict twin `start`). */
function alignOf(value: string | undefined, rightToLeft: boolean): Setting['align'] {
  if (value === 'center') return 'center';
  if (value === 'right' || value === 'end') return rightToLeft ? 'left' : 'right';
  return undefined;
}
