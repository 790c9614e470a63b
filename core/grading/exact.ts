import { withoutEnds } from '../text/index.ts';
/** A fraction of whole numbers, never rounded; `over` is more than 0. */
export interface Exact {
  readonly of: bigint;
  readonly over: bigint;
}

const divisor = (a: bigint, b: bigint): bigint => (b === 0n ? (a < 0n ? -a : a) : divisor(b, a % b));

/** @throws RangeError where `over` is 0 */
export function exact(of: bigint | number, over: bigint | number = 1): Exact {
  const [top, bottom] = [BigInt(of), BigInt(over)];
  if (bottom === 0n) throw new RangeError('Nothing can be divided by 0');
  const sign = bottom < 0n ? -1n : 1n;
  const common = divisor(top, bottom) || 1n;
  return { of: (sign * top) / common, over: (sign * bottom) / common };
}

export const ZERO = exact(0);

export const plus = (a: Exact, b: Exact): Exact => exact(a.of * b.over + b.of * a.over, a.over * b.over);
export const minus = (a: Exact, b: Exact): Exact => plus(a, { of: -b.of, over: b.over });
export const times = (a: Exact, b: Exact): Exact => exact(a.of * b.of, a.over * b.over);
/** @throws RangeError where `b` is 0 */
export const divided = (a: Exact, b: Exact): Exact => exact(a.of * b.over, a.over * b.of);
/** Less than 0, 0, or more than 0, as `a` is less than, equal to, or more than `b`. */
export const compared = (a: Exact, b: Exact): number => {
  const difference = a.of * b.over - b.of * a.over;
  return difference < 0n ? -1 : difference > 0n ? 1 : 0;
};
export const larger = (a: Exact, b: Exact): Exact => (compared(a, b) >= 0 ? a : b);
export const smaller = (a: Exact, b: Exact): Exact => (compared(a, b) <= 0 ? a : b);

/** Half up: what lies in the middle goes to the larger. @param decimals 0 to 6 */
export function rounded(value: Exact, decimals: number): Exact {
  const scale = 10n ** BigInt(decimals);
  const [top, bottom] = [2n * value.of * scale + value.over, 2n * value.over];
  const whole = top / bottom - (top % bottom < 0n ? 1n : 0n);
  return exact(whole, scale);
}

/**
 * `0.1` → a tenth, exactly as it is written.
 * @returns undefined where it is no decimal number of up to 12 digits before and 6 after the point
 */
export function exactOf(text: string): Exact | undefined {
  const [, sign, whole, fraction = ''] = /^\s*([+-]?)(\d{1,12})(?:\.(\d{0,6}))?\s*$/.exec(text) ?? [];
  if (whole === undefined) return undefined;
  const value = exact(BigInt(whole + fraction), 10n ** BigInt(fraction.length));
  return sign === '-' ? { of: -value.of, over: value.over } : value;
}

/** As a decimal with no more digits than it needs. @param decimals what it is rounded to, half up */
export function decimalOf(value: Exact, decimals: number): string {
  const { of, over } = rounded(value, decimals);
  const digits = String(((of < 0n ? -of : of) * 10n ** BigInt(decimals)) / over).padStart(decimals + 1, '0');
  const whole = digits.slice(0, digits.length - decimals);
  const fraction = withoutEnds(digits.slice(digits.length - decimals), /0/u, 'end');
  return `${of < 0n ? '-' : ''}${whole}${fraction && `.${fraction}`}`;
}
