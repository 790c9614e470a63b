import { percentage, type Hundredths } from './hundredths.ts';
import { total, type Sheet } from './rubric.ts';

/** A step of a grading scale: the grade is given from this share of the possible points upwards. */
export interface Band {
  grade: string;
  /** Hundredths of a per cent, 0 to 10000. */
  from: Hundredths;
}

/** In any order; a scale without a band from 0 leaves the lowest works without a grade. */
export type Scale = Band[];

/** A finished result. */
export interface Grade {
  points: Hundredths;
  possible: Hundredths;
  /** Hundredths of a per cent. */
  percentage: Hundredths;
  /** The name of the band; absent where the scale has none so low. */
  grade?: string | undefined;
}

/**
 * The highest band that is reached. Compared before any rounding: 69.999 % does not reach 70 %.
 * @throws RangeError where nothing is possible
 */
export function bandReached(scale: Scale, points: Hundredths, possible: Hundredths): Band | undefined {
  if (possible <= 0) throw new RangeError('A grade needs more than 0 possible points');
  return scale
    .filter((band) => points * 10_000 >= band.from * possible)
    .reduce<Band | undefined>((best, band) => (best && best.from >= band.from ? best : band), undefined);
}

/** The grade of a work, once everything is scored; undefined before that, or where there are no points to be had. */
export function gradeOf(sheet: Sheet, scale: Scale): Grade | undefined {
  const sum = total(sheet);
  if (sum.missing.length > 0 || sum.possible <= 0) return undefined;
  return {
    points: sum.points,
    possible: sum.possible,
    percentage: percentage(sum.points, sum.possible),
    grade: bandReached(scale, sum.points, sum.possible)?.grade,
  };
}
