import type { MathNode } from '#core/folio';
import { MATH_ATTRIBUTES, MATH_ELEMENTS } from '../../contract/folio.ts';

interface DomNode {
  nodeType: number;
  nodeValue: string | null;
  localName?: string | null;
  childNodes: Iterable<DomNode> | ArrayLike<DomNode>;
  getAttribute?(name: string): string | null;
}

const ALLOWED = new Set<string>(MATH_ELEMENTS);

/** MathML as plain values: only elements and attributes that draw; anything else leaves its words. */
export function mathNode(element: DomNode): MathNode {
  const attributes = MATH_ATTRIBUTES.flatMap((name) => {
    const value = element.getAttribute?.(name);
    return value ? [[name, value]] : [];
  });
  return {
    element: ALLOWED.has(element.localName ?? '') ? element.localName! : 'mrow',
    ...(attributes.length > 0 && { attributes: Object.fromEntries(attributes) as Record<string, string> }),
    children: Array.from(element.childNodes as Iterable<DomNode>).flatMap((child): (MathNode | string)[] => {
      if (child.nodeType === 3) return child.nodeValue?.trim() ? [child.nodeValue.trim()] : [];
      return child.nodeType === 1 && child.localName !== 'annotation' ? [mathNode(child)] : [];
    }),
  };
}

/** The characters of an equation in the order in which it is drawn. */
export const mathText = (math: MathNode | string): string =>
  typeof math === 'string' ? math : math.children.map(mathText).join('');
