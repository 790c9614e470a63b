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

/**
 * How long each of some works takes in milliseconds: the median of so many runs, after one that warms up. They take turns, so
 * that a busy moment of the machine meets all of them.
 */
export function medianTimes<const Works extends (() => void)[]>(
  runs: number,
  ...works: Works
): { [Index in keyof Works]: number } {
  for (const work of works) work();
  const times = works.map((): number[] => []);
  for (let run = 0; run < runs; run++)
    works.forEach((work, index) => {
      const begun = performance.now();
      work();
      times[index]!.push(performance.now() - begun);
    });
  return times.map(middle) as { [Index in keyof Works]: number };
}

const middle = (values: number[]): number => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
