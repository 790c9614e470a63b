import { exact, rounded, times, type Exact } from './exact.ts';
import { formatHundredths, type Hundredths } from './hundredths.ts';
import { CaseError, resultOf, type Case, type Flag, type LateRule, type Part } from './result.ts';
import { bestOf, pointsOf, type QuestionPoints, type Rubric, type Scored, type Scores } from './rubric.ts';

/** A step of a grading scale: the grade is given from this share of the possible points upwards. */
export interface Band {
  grade: string;
  /** Hundredths of a per cent, 0 to 10000. */
  from: Hundredths;
}

/** In any order; a scale without a band from 0 leaves the lowest works without a grade. */
export type Scale = Band[];

/** What coming late costs; see `LateRule`. Per cent in hundredths. */
export interface LateTerms {
  grace: number;
  unit: LateRule['unit'];
  percent: Hundredths;
  of: LateRule['of'];
  floor: Hundredths;
}

/** How an assignment is graded. */
export interface Marking {
  /** What a result is called first. */
  shown: 'level' | 'points' | 'percent';
  /** Decimals of points and per cent, 0 to 2. */
  decimals: number;
  halfSteps: boolean;
  /** What a weighted result is out of, or one that has no parts; null for the sum of the parts. */
  possible: Hundredths | null;
  late: LateTerms | null;
}

export const PLAIN_MARKING: Marking = { shown: 'level', decimals: 2, halfSteps: false, possible: null, late: null };

/** What a teacher adds to what was scored, or puts in its place. */
export interface Adjustment {
  extra: Hundredths | null;
  total: Hundredths | null;
  /** Why there is another total. */
  reason: string;
}

/** All that makes the result of one work. */
export interface Sheet {
  rubric: Rubric;
  scores: Scores;
  questions?: readonly Scored[] | undefined;
  points?: QuestionPoints | undefined;
  scale?: Scale | undefined;
  marking?: Marking | undefined;
  /** After it was due. */
  minutesLate?: number | undefined;
  standing?: { flag: Flag | null } | undefined;
  adjustment?: Adjustment | null | undefined;
}

/** A finished result. */
export interface Grade {
  points: Hundredths;
  possible: Hundredths;
  /** Hundredths of a per cent. */
  percentage: Hundredths;
  /** The name of the band; absent where the scale has none so low. */
  grade?: string | undefined;
  /** One sentence of arithmetic; absent on what was returned before there was one. */
  explanation?: string | undefined;
}

export interface Outcome {
  /** Null where there is none yet, or none at all. */
  grade: Grade | null;
  /** The arithmetic, or why there is no result. */
  explanation: string;
  /** Ids of the criteria and questions that are still to be scored, in their order. */
  missing: string[];
  /** The sum of what has been given so far. */
  soFar: Hundredths;
}

/**
 * Why points are not taken as the result of something; undefined where they are. The same in the grid, at the desk, and from files.
 * @param possible null where nobody has said what it is out of
 */
export function pointsProblem(points: Hundredths, possible: Hundredths | null): string | undefined {
  if (points < 0) return 'A grade is not less than 0.';
  if (possible !== null && points > possible)
    return `The most is ${formatHundredths(possible)} points. Give extra points at the desk to go above it.`;
  return undefined;
}

const hundredths = (value: Hundredths): Exact => exact(value, 100);
const inHundredths = (value: Exact): Hundredths => Number(rounded(times(value, exact(100)), 0).of);

/** What a work comes to as it is scored now: exactly, see `resultOf`. */
export function outcomeOf(sheet: Sheet): Outcome {
  const open: Pick<Outcome, 'missing' | 'soFar'> = { missing: [], soFar: 0 };
  try {
    const parts = partsOf(sheet, open);
    const { points, possible, percent, level, explanation } = resultOf(caseOf(sheet, parts));
    const grade =
      points && percent
        ? {
            points: inHundredths(points),
            possible: inHundredths(possible),
            percentage: inHundredths(percent),
            ...(level !== null && { grade: level }),
            explanation,
          }
        : null;
    return { ...open, grade, explanation };
  } catch (failure) {
    if (!(failure instanceof CaseError)) throw failure;
    return { ...open, grade: null, explanation: failure.message };
  }
}

function partsOf({ rubric, scores, questions = [], points = {} }: Sheet, open: { missing: string[]; soFar: number }) {
  const given = (id: string, value: Hundredths | null): Exact | null => {
    if (value === null) open.missing.push(id);
    else open.soFar += value;
    return value === null ? null : hundredths(value);
  };
  return [
    ...rubric.map((criterion): Part => {
      const { id, title, weight, bonus } = criterion;
      const score = scores[id];
      const notAssessed = score !== undefined && 'notAssessed' in score;
      const value = score === undefined || notAssessed ? null : pointsOf(criterion, score);
      // What is extra need not be scored.
      const needed = !notAssessed && !(bonus && value === null);
      return {
        title,
        possible: hundredths(bestOf(criterion)),
        points: needed ? given(id, value) : null,
        ...(weight !== undefined && { weight: hundredths(weight) }),
        ...(bonus && { bonus }),
        ...(notAssessed && { notAssessed }),
      };
    }),
    ...questions.map((question, index): Part => ({
      title: `Question ${index + 1}`,
      possible: hundredths(question.points),
      points: given(question.id, points[question.id] ?? null),
    })),
  ];
}

function caseOf(sheet: Sheet, parts: Part[]): Case {
  const { scale = [], marking = PLAIN_MARKING, minutesLate = 0, standing, adjustment } = sheet;
  const total = adjustment?.total ?? null;
  const possible = marking.possible === null ? undefined : hundredths(marking.possible);
  // Where nothing is scored on its own, the whole work is.
  const whole: Part | undefined =
    parts.length === 0 && possible
      ? { title: 'The work', possible, points: total === null ? null : hundredths(total), typed: true }
      : undefined;
  const reason = adjustment?.reason.trim() ?? '';
  return {
    parts: whole ? [whole] : parts,
    decimals: marking.decimals,
    levels: scale.map(({ grade, from }) => ({ name: grade, from: hundredths(from) })),
    ...(possible && { possible }),
    ...(adjustment?.extra && { extra: hundredths(adjustment.extra) }),
    // A total counts as it stands, whether it takes the place of what was scored or is all that there is.
    ...(marking.late &&
      minutesLate > 0 &&
      total === null && { late: { minutes: minutesLate, rule: ruleOf(marking.late) } }),
    ...(standing?.flag && { flag: standing.flag }),
    ...(!whole && total !== null && { override: { points: hundredths(total), reason } }),
  };
}

/** What a work is out of before anything is scored; null where nothing gives points. */
export function possiblePoints({
  rubric,
  questions = [],
  marking = PLAIN_MARKING,
}: Pick<Sheet, 'rubric' | 'questions' | 'marking'>): Hundredths | null {
  const own = rubric.filter(({ bonus }) => !bonus);
  if (own.length + questions.length === 0) return marking.possible;
  if (own.some(({ weight }) => weight !== undefined)) return marking.possible ?? 100_00;
  return [...own.map(bestOf), ...questions.map(({ points }) => points)].reduce((sum, points) => sum + points, 0);
}

const ruleOf = ({ percent, floor, ...terms }: LateTerms): LateRule => ({
  ...terms,
  percent: hundredths(percent),
  floor: hundredths(floor),
});
