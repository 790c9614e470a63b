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
  /** The sum of the best levels of all criteria and of all questions. */
  possible: Hundredths;
  /** Ids of the criteria and questions that are not scored yet, in their order. */
  missing: string[];
}

/** A question that gives points; see `Question` of core/folio. */
export interface Scored {
  id: string;
  points: Hundredths;
}

/** Points given to answers, by the ids of their questions. */
export type QuestionPoints = Record<string, Hundredths>;

/** What a work is scored by: the criteria of a rubric, the questions of an assignment, or both. */
export interface Sheet {
  rubric: Rubric;
  scores: Scores;
  questions?: readonly Scored[] | undefined;
  points?: QuestionPoints | undefined;
}

/**
 * Adds up the chosen levels and the points of the answers.
 * @throws RangeError where a score names a level that its criterion does not have, or points are more than their question has
 */
export function total({ rubric, scores, questions = [], points = {} }: Sheet): Total {
  const sum: Total = { points: 0, possible: 0, missing: [] };
  for (const criterion of rubric) {
    sum.possible += Math.max(0, ...criterion.levels.map((level) => level.points));
    const chosen = scores[criterion.id];
    if (chosen === undefined) sum.missing.push(criterion.id);
    else sum.points += levelOf(criterion, chosen).points;
  }
  for (const question of questions) {
    sum.possible += question.points;
    const given = points[question.id];
    if (given === undefined) sum.missing.push(question.id);
    else if (given < 0 || given > question.points)
      throw new RangeError(`No question gives ${given} hundredths of points`);
    else sum.points += given;
  }
  return sum;
}

function levelOf(criterion: Criterion, id: string): Level {
  const level = criterion.levels.find((candidate) => candidate.id === id);
  if (!level) throw new RangeError(`“${criterion.title}” has no level ${id}`);
  return level;
}
