/** Points and percentages are counted in whole hundredths, so that sums and comparisons are exact: 7.5 points are 750. */
export type Hundredths = number;

/** `750` → `7.5`, `800` → `8`, `-25` → `-0.25`. */
export function formatHundredths(value: Hundredths): string {
  const sign = value < 0 ? '-' : '';
  const magnitude = Math.abs(value);
  const fraction = String(magnitude % 100)
    .padStart(2, '0')
    .replace(/0+$/, '');
  return `${sign}${Math.trunc(magnitude / 100)}${fraction && `.${fraction}`}`;
}

/**
 * What share of `possible` the points are, rounded half up to a hundredth of a per cent.
 * @returns hundredths of a per cent: 10000 is all of it
 * @throws RangeError where nothing is possible
 */
export function percentage(points: Hundredths, possible: Hundredths): Hundredths {
  if (possible <= 0) throw new RangeError('A percentage needs more than 0 possible points');
  return Math.floor((2 * 10_000 * points + possible) / (2 * possible));
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
