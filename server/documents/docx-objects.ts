import type { Document, Element } from '@xmldom/xmldom';
import { attribute, child, descendants } from './xml.ts';

/** Something on a page that is no text and cannot be drawn here. */
export interface DocxObject {
  /** What it is, and its name where it has one, e.g. “Chart: Tides in May”. */
  label: string;
  /** What its author wrote in it, part by part. */
  texts: string[];
}

/**
 * What a drawing or an embedded object is, where it is neither a picture nor text (ECMA-376 Part 1, section 20.1.2.2.16).
 * @param part the part of the package that a relationship of the document leads to
 */
export function docxObject(element: Element, part: (relation: string) => Document | undefined): DocxObject | undefined {
  if (element.localName === 'object') return embedded(element);
  const data = descendants(element, 'graphicData')[0];
  const kind = (attribute(data, 'uri') ?? '').split('/').at(-1);
  if (kind === 'chart') return chart(part(attribute(child(data, 'chart'), 'r:id') ?? ''));
  if (kind !== 'diagram') return undefined;
  const texts = diagramTexts(part(attribute(child(data, 'relIds'), 'r:dm') ?? ''));
  return { label: 'Diagram', texts };
}

/** Equations of old programs keep their characters in a form of their own; other objects bring a picture along. */
function embedded(element: Element): DocxObject | undefined {
  const program = attribute(descendants(element, 'OLEObject')[0], 'ProgID') ?? '';
  return /^Equation/iu.test(program) ? { label: 'Equation of an old program', texts: [] } : undefined;
}

const chart = (document: Document | undefined): DocxObject => ({ label: chartLabel(document), texts: [] });

/** What a chart is called, by its title (ECMA-376 Part 1, section 21.2.2.210). */
export function chartLabel(document: Document | undefined): string {
  const title = wordsOf(descendants(document, 'title')[0]);
  return title ? `Chart: ${title}` : 'Chart';
}

/** The words of each point of a diagram, in the order in which they were written (section 21.4.3). */
export const diagramTexts = (document: Document | undefined): string[] =>
  descendants(document, 'pt')
    .filter((point) => !['pres', 'parTrans', 'sibTrans'].includes(attribute(point, 'type') ?? 'node'))
    .map((point) => wordsOf(child(point, 't')))
    .filter((text) => text !== '');

const wordsOf = (element: Element | undefined): string =>
  descendants(element, 'p')
    .map((paragraph) =>
      descendants(paragraph, 't')
        .map(({ textContent }) => textContent ?? '')
        .join(''),
    )
    .join(' ')
    .trim();
