export interface Figure {
  unit: string;
  median: number;
  all: number[];
  wanted: string;
}

export const round = (value: number): number => Math.round(value * 10) / 10;

export function figure(unit: string, values: number[], wanted: string): Figure {
  const all = values.map(round);
  return { unit, median: middle(all), all, wanted };
}

/** How long some work takes in milliseconds: the median of so many runs, after one that warms up. */
export function medianTime(runs: number, work: () => void): number {
  work();
  return middle(
    Array.from({ length: runs }, () => {
      const begun = performance.now();
      work();
      return performance.now() - begun;
    }),
  );
}

const middle = (values: number[]): number => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
