/** The middle one of some numbers in order, of two the greater; undefined where there are none. */
export const median = (values: readonly number[]): number | undefined =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
