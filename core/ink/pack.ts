import type { InkPoint } from './stroke.ts';

const DIGITS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
const VALUES = new Map([...DIGITS].map((digit, value) => [digit, value]));
const PRESSURES = 63;
/** Hundredths of a second. */
const TICKS = 100;
const CHANNELS = 4;

/**
 * Points as text: x, y, pressure and time of each, as differences from the point before, as Base64 VLQ of ECMA-426 (section
 * 6.1). Places are kept as whole units, pressure in 64 steps, time in hundredths of a second.
 */
export function packPoints(points: readonly InkPoint[]): string {
  const before = new Array<number>(CHANNELS).fill(0);
  let packed = '';
  for (const { x, y, pressure, at } of points) {
    const now = [x, y, pressure * PRESSURES, at * TICKS].map(Math.round);
    now.forEach((value, channel) => {
      packed += vlq(value - before[channel]!);
      before[channel] = value;
    });
  }
  return packed;
}

/** Inverse of {@link packPoints}. @throws RangeError where it is no packed points */
export function unpackPoints(packed: string): InkPoint[] {
  const values = unvlq(packed);
  if (values.length % CHANNELS !== 0) throw new RangeError('These points break off in the middle');
  const points: InkPoint[] = [];
  let [x, y, pressure, at] = [0, 0, 0, 0];
  for (let index = 0; index < values.length; index += CHANNELS) {
    x += values[index]!;
    y += values[index + 1]!;
    pressure += values[index + 2]!;
    at += values[index + 3]!;
    points.push({ x, y, pressure: pressure / PRESSURES, at: at / TICKS });
  }
  return points;
}

/** Five bits a digit, the lowest first, with its sign in the lowest bit of all; the sixth bit says that more follow. */
function vlq(value: number): string {
  let rest = value < 0 ? -value * 2 + 1 : value * 2;
  let digits = '';
  do {
    const digit = rest % 32;
    rest = Math.floor(rest / 32);
    digits += DIGITS[digit + (rest > 0 ? 32 : 0)];
  } while (rest > 0);
  return digits;
}

function unvlq(digits: string): number[] {
  const values: number[] = [];
  let [value, weight] = [0, 1];
  for (const digit of digits) {
    const bits = VALUES.get(digit);
    if (bits === undefined) throw new RangeError(`“${digit}” is no digit of packed points`);
    value += (bits % 32) * weight;
    if (bits >= 32) {
      weight *= 32;
      continue;
    }
    values.push(value % 2 === 1 ? -(value - 1) / 2 : value / 2);
    [value, weight] = [0, 1];
  }
  if (weight !== 1) throw new RangeError('These points break off in the middle');
  return values;
}
