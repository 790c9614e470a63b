import { agreementOf, type Agreement, type Criterion, type Rubric, type Score, type Scores } from '#core/grading';

/** What two teachers gave one work, by the same rubric. */
export interface TwoScores {
  first: Scores;
  second: Scores;
}

/**
 * The place of a score among the levels of its criterion, the lowest being 0. Points that were typed count as the level that is
 * nearest to them, the lower one of two.
 * @returns null where nothing was assessed
 */
export function ratingOf({ levels }: Criterion, score: Score | undefined): number | null {
  if (!score || 'notAssessed' in score) return null;
  const ordered = levels.toSorted((a, b) => a.points - b.points);
  if ('level' in score) {
    const at = ordered.findIndex(({ id }) => id === score.level);
    return at < 0 ? null : at;
  }
  const distances = ordered.map(({ points }) => Math.abs(points - score.points));
  return distances.indexOf(Math.min(...distances));
}

export interface CriterionAgreement extends Agreement {
  criterion: string;
  /** How many levels the second teacher is above the first on the average; below 0 where stricter. */
  shift: number | null;
}

/** How far two teachers agree about each criterion. */
export const agreementByCriterion = (rubric: Rubric, works: readonly TwoScores[]): CriterionAgreement[] =>
  rubric.map((criterion) => {
    const ratings = works.map(({ first, second }) => [
      ratingOf(criterion, first[criterion.id]),
      ratingOf(criterion, second[criterion.id]),
    ]);
    const shifts = ratings.flatMap(([a, b]) => (typeof a === 'number' && typeof b === 'number' ? [b - a] : []));
    const shift = shifts.length === 0 ? null : shifts.reduce((sum, one) => sum + one, 0) / shifts.length;
    return { criterion: criterion.id, ...agreementOf(ratings), shift };
  });

/** The criteria about which two teachers do not say the same. */
export const differing = (rubric: Rubric, { first, second }: TwoScores): string[] =>
  rubric
    .filter((criterion) => {
      const [a, b] = [first[criterion.id], second[criterion.id]];
      return JSON.stringify(a) !== JSON.stringify(b);
    })
    .map(({ id }) => id);

/** The criteria that nobody has scored yet; what was left out on purpose is scored. */
export const unscored = (rubric: Rubric, scores: Scores): string[] =>
  rubric.filter(({ id }) => !(id in scores)).map(({ id }) => id);
