import type { Hundredths } from './hundredths.ts';

export interface Level {
  id: string;
  title: string;
  description: string;
  points: Hundredths;
}

export interface Criterion {
  id: string;
  title: string;
  description: string;
  levels: Level[];
}

export type Rubric = Criterion[];

/** The level chosen for each criterion, by their ids. A criterion without one has not been scored. */
export type Scores = Record<string, string>;

export interface Total {
  points: Hundredths;
  /** The sum of the best levels of all criteria. */
  possible: Hundredths;
  /** Ids of the criteria that are not scored yet, in the order of the rubric. */
  missing: string[];
}

/**
 * Adds up the chosen levels.
 * @throws RangeError where a score names a level that its criterion does not have
 */
export function total(rubric: Rubric, scores: Scores): Total {
  const sum: Total = { points: 0, possible: 0, missing: [] };
  for (const criterion of rubric) {
    sum.possible += Math.max(0, ...criterion.levels.map((level) => level.points));
    const chosen = scores[criterion.id];
    if (chosen === undefined) sum.missing.push(criterion.id);
    else sum.points += levelOf(criterion, chosen).points;
  }
  return sum;
}

function levelOf(criterion: Criterion, id: string): Level {
  const level = criterion.levels.find((candidate) => candidate.id === id);
  if (!level) throw new RangeError(`“${criterion.title}” has no level ${id}`);
  return level;
}
