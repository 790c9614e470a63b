import type { Document, Element } from '@xmldom/xmldom';
import { bullet, listNumber, type Counting } from './list-number.ts';
import { attribute, child, children, numberOf, path } from './xml.ts';

interface Level {
  format: string;
  /** E.g. `%1.%2)`. */
  text: string;
  start: number;
}

interface Numbering {
  /** Lists that share it count on together. */
  counter: string;
  levels: Map<number, Level>;
  restarts: Map<number, number>;
}

const COUNTINGS: Record<string, Counting> = {
  decimal: 'decimal',
  lowerLetter: 'lowerLetter',
  upperLetter: 'upperLetter',
  lowerRoman: 'lowerRoman',
  upperRoman: 'upperRoman',
};

/**
 * Numbers paragraphs as a word processor does (ECMA-376 Part 1, section 17.9).
 * @returns a function that is called with each paragraph in the order of the document, and answers with its number or bullet
 */
export function docxNumbering(
  numbering: Document | undefined,
  styles: Document | undefined,
): (paragraph: Element) => string | undefined {
  const lists = numberings(numbering);
  const byStyle = styleNumbers(styles);
  const counters = new Map<string, Map<number, number>>();
  const begun = new Set<string>();

  return (paragraph) => {
    const properties = child(paragraph, 'pPr');
    const own = child(properties, 'numPr');
    const inherited = byStyle.get(attribute(child(properties, 'pStyle'), 'val') ?? '');
    const id = attribute(child(own, 'numId'), 'val') ?? inherited?.id;
    const list = id === undefined || id === '0' ? undefined : lists.get(id);
    if (!list) return undefined;
    const depth = numberOf(child(own, 'ilvl'), 'val') ?? inherited?.depth ?? 0;
    const level = list.levels.get(depth);
    if (!level || level.format === 'none') return undefined;
    const values = counters.get(list.counter) ?? new Map<number, number>();
    counters.set(list.counter, values);
    if (!begun.has(id!)) for (const [at, start] of list.restarts) values.set(at, start - 1);
    begun.add(id!);
    values.set(depth, (values.get(depth) ?? level.start - 1) + 1);
    for (const deeper of [...values.keys()]) if (deeper > depth) values.delete(deeper);
    if (level.format === 'bullet') return bullet(level.text);
    return level.text.replace(/%(\d)/g, (_, place: string) => {
      const at = Number(place) - 1;
      const there = list.levels.get(at);
      const counting = COUNTINGS[there?.format ?? ''] ?? 'decimal';
      return listNumber(values.get(at) ?? there?.start ?? 1, counting);
    });
  };
}

function numberings(document: Document | undefined): Map<string, Numbering> {
  const root = document?.documentElement ?? undefined;
  const abstract = new Map(
    children(root, 'abstractNum').map((one) => [attribute(one, 'abstractNumId')!, levelsOf(one)]),
  );
  return new Map(
    children(root, 'num').map((num) => {
      const counter = attribute(child(num, 'abstractNumId'), 'val') ?? '';
      const overrides = children(num, 'lvlOverride');
      const restarts = overrides.flatMap((override) => {
        const start = numberOf(child(override, 'startOverride'), 'val');
        return start === undefined ? [] : [[numberOf(override, 'ilvl') ?? 0, start] as const];
      });
      const levels = new Map([...(abstract.get(counter) ?? []), ...overrides.flatMap((one) => [...levelsOf(one)])]);
      return [attribute(num, 'numId')!, { counter, levels, restarts: new Map(restarts) }];
    }),
  );
}

const levelsOf = (parent: Element): Map<number, Level> =>
  new Map(
    children(parent, 'lvl').map((level) => [
      numberOf(level, 'ilvl') ?? 0,
      {
        format: attribute(child(level, 'numFmt'), 'val') ?? 'decimal',
        text: attribute(child(level, 'lvlText'), 'val') ?? '',
        start: numberOf(child(level, 'start'), 'val') ?? 1,
      },
    ]),
  );

/** Paragraph styles bring numbers along, also from the styles that they are based on. */
function styleNumbers(styles: Document | undefined): Map<string, { id: string; depth: number }> {
  const all = new Map(
    children(styles?.documentElement ?? undefined, 'style').map((style) => [attribute(style, 'styleId') ?? '', style]),
  );
  const found = new Map<string, { id: string; depth: number }>();
  for (const name of all.keys()) {
    let style = all.get(name);
    for (let steps = 0; style && steps < 20; steps++) {
      const numbers = path(style, 'pPr', 'numPr');
      const id = attribute(child(numbers, 'numId'), 'val');
      if (id !== undefined) {
        found.set(name, { id, depth: numberOf(child(numbers, 'ilvl'), 'val') ?? 0 });
        break;
      }
      style = all.get(attribute(child(style, 'basedOn'), 'val') ?? '');
    }
  }
  return found;
}
