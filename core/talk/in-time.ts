/** Seconds: what nobody hears, and what is too much to be made up by playing faster or slower. */
const UNHEARD = 0.004;
const TOO_FAR = 0.25;
/** Within so many seconds a difference is made up, but never by more than this share of the pace. */
const MADE_UP_IN = 0.6;
const MOST = 0.12;

/** How a second player comes back into time with a first: it goes there at once, or plays at another pace for a while. */
export type Correction = { jump: true } | { jump: false; pace: number };

/** @param ahead seconds that the second player is ahead of where it should be; less than 0 where it is behind */
export function correction(ahead: number): Correction {
  if (Math.abs(ahead) > TOO_FAR) return { jump: true };
  if (Math.abs(ahead) < UNHEARD) return { jump: false, pace: 1 };
  return { jump: false, pace: 1 - Math.min(MOST, Math.max(-MOST, ahead / MADE_UP_IN)) };
}

/**
 * By how many seconds two clocks are apart, out of several readings of both: the median, since a reading is late now and then.
 * @returns 0 where there are no readings
 */
export function apart(readings: readonly (readonly [first: number, second: number])[]): number {
  const differences = readings.map(([first, second]) => first - second).toSorted((a, b) => a - b);
  const middle = differences.length >> 1;
  return differences.length % 2 === 1
    ? differences[middle]!
    : ((differences[middle - 1] ?? 0) + (differences[middle] ?? 0)) / 2;
}
