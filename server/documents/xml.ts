import { DOMParser, type Document, type Element, type Node } from '@xmldom/xmldom';
import { documentErrors, type FileFormat } from './document.ts';

/*
 * Office documents name their elements by namespace, but no two namespaces of one document share a local name that matters
 * here; so elements and attributes are found by their local names.
 */

/**
 * @throws DocumentError where it is not well-formed, or declares entities of its own
 */
export function parseXml(text: string, format: FileFormat): Document {
  if (/<!(?:DOCTYPE|ENTITY)/i.test(text.slice(0, 4096))) throw documentErrors.broken(format);
  try {
    return new DOMParser({
      onError: (level) => {
        if (level !== 'warning') throw documentErrors.broken(format);
      },
    }).parseFromString(text, 'text/xml');
  } catch {
    throw documentErrors.broken(format);
  }
}

/** A part without which the rest of a document can be read: nothing where it is missing or broken. */
export function readableXml(text: string | undefined, format: FileFormat): Document | undefined {
  try {
    return text === undefined ? undefined : parseXml(text, format);
  } catch {
    return undefined;
  }
}

export const isElement = (node: Node): node is Element => node.nodeType === 1;

export const elements = (parent: Node | undefined): Element[] =>
  parent ? Array.from(parent.childNodes).filter(isElement) : [];

export const children = (parent: Node | undefined, name: string): Element[] =>
  elements(parent).filter(({ localName }) => localName === name);

export const child = (parent: Node | undefined, name: string): Element | undefined =>
  elements(parent).find(({ localName }) => localName === name);

/** Follows a path of local names: `path(slide, 'cSld', 'spTree')`. */
export const path = (parent: Node | undefined, ...names: string[]): Element | undefined =>
  names.reduce<Node | undefined>((node, name) => child(node, name), parent) as Element | undefined;

/** All elements of a name below another, in document order. */
export function descendants(parent: Node | undefined, name: string): Element[] {
  return elements(parent).flatMap((element) => [
    ...(element.localName === name ? [element] : []),
    ...descendants(element, name),
  ]);
}

/** The value of an attribute, by its local name or, where two share it, by its full name. */
export function attribute(element: Element | undefined, name: string): string | undefined {
  if (!element) return undefined;
  for (const { localName, name: full, value } of Array.from(element.attributes))
    if (full === name || (!name.includes(':') && localName === name)) return value;
  return undefined;
}

export function numberOf(element: Element | undefined, name: string): number | undefined {
  const value = Number(attribute(element, name) ?? NaN);
  return Number.isFinite(value) ? value : undefined;
}
