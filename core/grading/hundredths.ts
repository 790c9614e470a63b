import { withoutEnds } from '../text/index.ts';
/** Points and percentages are counted in whole hundredths, so that sums and comparisons are exact: 7.5 points are 750. */
export type Hundredths = number;

/** `750` → `7.5`, `800` → `8`, `-25` → `-0.25`. */
export function formatHundredths(value: Hundredths): string {
  const sign = value < 0 ? '-' : '';
  const magnitude = Math.abs(value);
  const fraction = withoutEnds(String(magnitude % 100).padStart(2, '0'), /0/u, 'end');
  return `${sign}${Math.trunc(magnitude / 100)}${fraction && `.${fraction}`}`;
}

/**
 * `7.5` → `750`; a comma is a decimal point, too.
 * @returns undefined where it is no number with at most two decimals
 */
export function parseHundredths(text: string): Hundredths | undefined {
  const [, sign, whole, fraction = ''] = /^\s*([+-]?)(\d{1,9})(?:[.,](\d{0,2}))?\s*$/.exec(text) ?? [];
  if (whole === undefined) return undefined;
  const value = Number(whole) * 100 + Number(fraction.padEnd(2, '0'));
  return sign === '-' && value > 0 ? -value : value;
}
