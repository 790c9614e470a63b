/*
 * Whether numbers go up or down in their order, told so that chance is seldom taken for it: Kendall's tau against no order at all, with the
 * slope of Theil and Sen and its interval. M. G. Kendall, "Rank Correlation Methods", 4th ed. (1970), chapters 4 and 5 (ties: 4.8);
 * P. K. Sen, "Estimates of the regression coefficient based on Kendall's tau", JASA 63 (1968). From memory.
 */

export interface RankTrend {
  /** The median of all slopes between two places. */
  slope: number;
  /** Between which the slope lies with 95 % confidence. */
  interval: readonly [low: number, high: number];
  /** Kendall's tau-b, -1 to 1; 0 where all are alike. */
  tau: number;
  /** How often an order by chance looks as much like one as this: two-sided, 0 to 1. */
  p: number;
}

/** So few are counted out in all their orders; more of them, where some are alike, as a normal distribution. */
const MOST_COUNTED = 7;
/** So many without ties are told exactly. */
const MOST_EXACT = 60;
const Z_95 = 1.959964;

/** @returns undefined where there are fewer than three numbers */
export function rankTrend(numbers: readonly number[]): RankTrend | undefined {
  const n = numbers.length;
  if (n < 3) return undefined;
  const s = scoreOf(numbers);
  const ties = tiesIn(numbers);
  const pairs = (n * (n - 1)) / 2;
  const untied = pairs - ties.reduce((sum, t) => sum + (t * (t - 1)) / 2, 0);
  const variance = (n * (n - 1) * (2 * n + 5) - ties.reduce((sum, t) => sum + t * (t - 1) * (2 * t + 5), 0)) / 18;
  const slopes = slopesIn(numbers);
  const reach = Math.ceil(Z_95 * Math.sqrt(variance));
  const at = (place: number): number => slopes[Math.min(slopes.length - 1, Math.max(0, place))]!;
  return {
    slope: (at(Math.floor((slopes.length - 1) / 2)) + at(Math.ceil((slopes.length - 1) / 2))) / 2,
    interval: [at(Math.floor((slopes.length - reach) / 2) - 1), at(Math.ceil((slopes.length + reach) / 2))],
    tau: untied === 0 ? 0 : s / Math.sqrt(pairs * untied),
    p: chanceOf(numbers, s, ties, variance),
  };
}

/** How many pairs go up, less those that go down. */
function scoreOf(numbers: readonly number[]): number {
  let s = 0;
  for (let i = 0; i < numbers.length; i++)
    for (let j = i + 1; j < numbers.length; j++) s += Math.sign(numbers[j]! - numbers[i]!);
  return s;
}

const tiesIn = (numbers: readonly number[]): number[] => {
  const times = new Map<number, number>();
  for (const one of numbers) times.set(one, (times.get(one) ?? 0) + 1);
  return [...times.values()].filter((count) => count > 1);
};

function slopesIn(numbers: readonly number[]): number[] {
  const slopes: number[] = [];
  for (let i = 0; i < numbers.length; i++)
    for (let j = i + 1; j < numbers.length; j++) slopes.push((numbers[j]! - numbers[i]!) / (j - i));
  return slopes.sort((a, b) => a - b);
}

function chanceOf(numbers: readonly number[], s: number, ties: readonly number[], variance: number): number {
  if (variance <= 0 || s === 0) return 1;
  if (ties.length === 0 && numbers.length <= MOST_EXACT) return exactly(numbers.length, s);
  if (numbers.length <= MOST_COUNTED) return counted(numbers, s);
  return Math.min(1, 2 * upperTail((Math.abs(s) - 1) / Math.sqrt(variance)));
}

/** Of all orders of so many different numbers, the share in which the score is as far from 0: by their numbers of inversions. */
function exactly(n: number, s: number): number {
  const pairs = (n * (n - 1)) / 2;
  let shares = [1];
  for (let size = 2; size <= n; size++) {
    const next = new Array<number>((size * (size - 1)) / 2 + 1).fill(0);
    shares.forEach((share, inversions) => {
      for (let more = 0; more < size; more++) next[inversions + more]! += share / size;
    });
    shares = next;
  }
  const most = (pairs - Math.abs(s)) / 2;
  return Math.min(1, 2 * shares.slice(0, most + 1).reduce((sum, share) => sum + share, 0));
}

/** The same for numbers some of which are alike, order by order. */
function counted(numbers: readonly number[], s: number): number {
  let [as, all] = [0, 0];
  const order = [...numbers];
  const permute = (from: number): void => {
    if (from === order.length) {
      all++;
      if (Math.abs(scoreOf(order)) >= Math.abs(s)) as++;
      return;
    }
    for (let i = from; i < order.length; i++) {
      [order[from], order[i]] = [order[i]!, order[from]!];
      permute(from + 1);
      [order[from], order[i]] = [order[i]!, order[from]!];
    }
  };
  permute(0);
  return as / all;
}

/** Of a standard normal distribution: Abramowitz and Stegun, "Handbook of Mathematical Functions", 26.2.17; off by less than 7.5e-8. */
function upperTail(z: number): number {
  if (z < 0) return 1 - upperTail(-z);
  const t = 1 / (1 + 0.2316419 * z);
  const series = t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) * series;
}
