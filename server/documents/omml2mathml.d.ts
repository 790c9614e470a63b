declare module 'omml2mathml' {
  import type { Element } from '@xmldom/xmldom';

  /** Turns an equation of Office (ECMA-376 Part 1, section 22.1) into a MathML element. */
  export default function omml2mathml(equation: Element): Element;
}
