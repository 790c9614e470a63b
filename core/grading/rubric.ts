import { formatHundredths, type Hundredths } from './hundredths.ts';

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
  /** Hundredths of a per cent of the result; where one criterion has a weight, all have. */
  weight?: Hundredths | undefined;
  /** Adds its points, and nothing to what is possible. */
  bonus?: boolean | undefined;
}

export type Rubric = Criterion[];

/** What one criterion was given: one of its levels, points that were typed, or it is left out. */
export type Score = { level: string } | { points: Hundredths } | { notAssessed: true };

/** By the ids of the criteria. One without a score has not been scored. */
export type Scores = Record<string, Score>;

/** A question that gives points; see `Question` of core/folio. */
export interface Scored {
  id: string;
  points: Hundredths;
}

/** Points given to answers, by the ids of their questions. */
export type QuestionPoints = Record<string, Hundredths>;

/** The most points that a criterion gives. */
export const bestOf = ({ levels }: Pick<Criterion, 'levels'>): Hundredths =>
  Math.max(0, ...levels.map(({ points }) => points));

/**
 * The points of a score; null where the criterion is left out.
 * @throws RangeError where it is a level that the criterion does not have, or points that it does not give
 */
export function pointsOf(criterion: Criterion, score: Score): Hundredths | null {
  if ('notAssessed' in score) return null;
  if ('points' in score) {
    if (score.points >= 0 && score.points <= bestOf(criterion)) return score.points;
    throw new RangeError(`“${criterion.title}” does not give ${score.points} hundredths of points`);
  }
  const level = criterion.levels.find(({ id }) => id === score.level);
  if (level) return level.points;
  throw new RangeError(`“${criterion.title}” has no level ${score.level}`);
}

/** A score as it is said. */
export function scoreWords(
  { levels }: { levels: readonly Pick<Level, 'id' | 'title'>[] },
  score: Score | null | undefined,
): string {
  if (!score) return 'no score';
  if ('notAssessed' in score) return 'not assessed';
  if ('points' in score) return `${formatHundredths(score.points)} points`;
  return levels.find(({ id }) => id === score.level)?.title ?? 'another level';
}

/** In the middle between each two levels, lowest first, where half steps are given. */
export function halfSteps({ levels }: Pick<Criterion, 'levels'>): Hundredths[] {
  const points = [...new Set(levels.map((level) => level.points))].sort((a, b) => a - b);
  return points.slice(1).map((high, index) => Math.round((points[index]! + high) / 2));
}

/** What keeps a rubric from being scored by; undefined where nothing does. */
export function weightProblem(rubric: Rubric, questions: number): string | undefined {
  const own = rubric.filter(({ bonus }) => !bonus);
  const weighted = own.filter(({ weight }) => weight !== undefined);
  if (weighted.length === 0) return undefined;
  if (questions > 0) return 'Questions have no weights, so the criteria beside them cannot have any.';
  if (weighted.length < own.length) return 'Give a weight to each criterion, or to none.';
  const sum = own.reduce((all, { weight }) => all + weight!, 0);
  if (sum !== 100_00) return `The weights add up to ${sum / 100} %, not to 100 %.`;
  if (own.some((criterion) => bestOf(criterion) === 0)) return 'A criterion with a weight needs a level with points.';
  return undefined;
}
