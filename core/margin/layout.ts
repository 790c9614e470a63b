import { isotonicRegression } from './isotonic.ts';

/** A ribbon to be placed; lengths in CSS pixels. */
export interface Ribbon {
  /** Where its passage begins. */
  passage: number;
  height: number;
}

export interface LayoutOptions {
  /** Empty space between two ribbons. */
  gap: number;
  /** No ribbon stands above this, unless the one in focus leaves those before it no room. */
  top?: number;
  /** Index of the ribbon that stands exactly at its passage. */
  focused?: number | undefined;
}

/**
 * The top of each ribbon: none overlap, the order is kept, and they stand as near to their passages as possible (least
 * sum of squared displacements). With offsets that take the heights out, this is isotonic regression.
 * @param ribbons in the order of their passages
 */
export function layoutRibbons(ribbons: readonly Ribbon[], { gap, top = 0, focused }: LayoutOptions): number[] {
  const offsets: number[] = [];
  let offset = 0;
  for (const { height } of ribbons) {
    offsets.push(offset);
    offset += height + gap;
  }
  const wanted = ribbons.map(({ passage }, index) => passage - offsets[index]!);
  return pinned(wanted, top, focused).map((value, index) => value + offsets[index]!);
}

function pinned(wanted: number[], top: number, focused: number | undefined): number[] {
  const clamped = (values: number[], low: number, high: number): number[] =>
    isotonicRegression(values).map((value) => Math.min(high, Math.max(low, value)));
  if (focused === undefined || !(focused in wanted)) return clamped(wanted, top, Infinity);
  const pin = wanted[focused]!;
  return [
    ...clamped(wanted.slice(0, focused), Math.min(top, pin), pin),
    pin,
    ...clamped(wanted.slice(focused + 1), pin, Infinity),
  ];
}
