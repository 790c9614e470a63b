/**
 * The non-decreasing sequence nearest to `values` (least sum of squared distances), by pooling adjacent violators.
 * Barlow, Bartholomew, Bremner & Brunk, *Statistical Inference under Order Restrictions* (1972), section 1.2. O(n).
 */
export function isotonicRegression(values: readonly number[]): number[] {
  const pools: { sum: number; size: number }[] = [];
  for (const value of values) {
    let pool = { sum: value, size: 1 };
    for (let last = pools.at(-1); last && last.sum / last.size > pool.sum / pool.size; last = pools.at(-1)) {
      pool = { sum: pool.sum + last.sum, size: pool.size + last.size };
      pools.pop();
    }
    pools.push(pool);
  }
  return pools.flatMap(({ sum, size }) => Array<number>(size).fill(sum / size));
}
