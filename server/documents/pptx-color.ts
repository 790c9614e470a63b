import type { Element } from '@xmldom/xmldom';
import { hexColor, partsOf, withLuminance } from './color.ts';
import { attribute, child, children, elements, numberOf, path } from './xml.ts';

/** Colours of a slide, with the names of its theme (ECMA-376 Part 1, sections 20.1.2.3 and 20.1.6.2). */
export interface Colors {
  /** The colour that is the child of an element, e.g. of `solidFill`. */
  color(parent: Element | undefined): string | undefined;
  /** What the properties of a shape, cell or background fill it with: its colour, `undefined` where nothing is said, `none`. */
  fill(properties: Element | undefined): string | undefined;
  isFilled(properties: Element | undefined): boolean;
}

/** Which colour of the theme a name means, unless the master says otherwise. */
const MAP: Record<string, string> = { bg1: 'lt1', tx1: 'dk1', bg2: 'lt2', tx2: 'dk2' };

const PRESETS: Record<string, string> = {
  black: '#000000',
  white: '#ffffff',
  red: '#ff0000',
  green: '#008000',
  blue: '#0000ff',
  yellow: '#ffff00',
  gray: '#808080',
  orange: '#ffa500',
};

const PER_CENT = 100_000;

export function pptxColors(theme: Element | undefined, master: Element | undefined, slide: Element): Colors {
  const scheme = new Map(
    elements(path(theme, 'themeElements', 'clrScheme')).map((entry) => [
      entry.localName!,
      rawColor(elements(entry)[0]),
    ]),
  );
  const override = path(slide, 'clrMapOvr', 'overrideClrMapping');
  const mapping = override ?? child(master, 'clrMap');
  const named = (name: string): string | undefined =>
    scheme.get(attribute(mapping, name) ?? MAP[name] ?? name) ?? scheme.get(name);

  const color = (parent: Element | undefined): string | undefined => {
    const element = elements(parent).find(({ localName }) => localName!.endsWith('Clr'));
    if (!element) return undefined;
    const base = element.localName === 'schemeClr' ? named(attribute(element, 'val') ?? '') : rawColor(element);
    return base && changed(base, element);
  };

  const fillElement = (properties: Element | undefined): Element | undefined =>
    elements(properties).find(({ localName }) =>
      ['solidFill', 'gradFill', 'pattFill', 'noFill', 'blipFill'].includes(localName!),
    );

  return {
    color,
    isFilled: (properties) => fillElement(properties) !== undefined,
    fill: (properties) => {
      const fill = fillElement(properties);
      if (fill?.localName === 'solidFill') return color(fill);
      if (fill?.localName === 'gradFill') return color(child(child(fill, 'gsLst'), 'gs'));
      if (fill?.localName === 'pattFill') return color(child(fill, 'bgClr'));
      return undefined;
    },
  };
}

function rawColor(element: Element | undefined): string | undefined {
  const value = attribute(element, 'val') ?? '';
  switch (element?.localName) {
    case 'srgbClr':
      return /^[0-9a-f]{6}$/i.test(value) ? `#${value.toLowerCase()}` : undefined;
    case 'sysClr':
      return `#${(attribute(element, 'lastClr') ?? '000000').toLowerCase()}`;
    case 'prstClr':
      return PRESETS[value];
    case 'scrgbClr':
      return hexColor(['r', 'g', 'b'].map((part) => ((numberOf(element, part) ?? 0) / PER_CENT) * 255));
    default:
      return undefined;
  }
}

function changed(base: string, element: Element): string {
  const share = (name: string): number | undefined => {
    const [change] = children(element, name);
    const value = numberOf(change, 'val');
    return value === undefined ? undefined : value / PER_CENT;
  };
  const [factor, offset] = [share('lumMod') ?? 1, share('lumOff') ?? 0];
  let color = factor === 1 && offset === 0 ? base : withLuminance(base, factor, offset);
  const [shade, tint] = [share('shade'), share('tint')];
  if (shade !== undefined) color = hexColor(partsOf(color).map((part) => part * shade));
  if (tint !== undefined) color = hexColor(partsOf(color).map((part) => part * tint + 255 * (1 - tint)));
  return color;
}
