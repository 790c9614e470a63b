import type { Element } from '@xmldom/xmldom';

/** English Metric Units, ECMA-376 part 1, 20.1.2.1. */
export const EMU_PER_POINT = 12_700;

/** One part of the presentation, with the parts that it refers to. */
export interface Part {
  name: string;
  root: Element;
  /** Names of other parts by relationship id. */
  targets: Map<string, { type: string; name: string; external: boolean }>;
}
