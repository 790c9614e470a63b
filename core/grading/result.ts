import {
  compared,
  decimalOf,
  divided,
  exact,
  larger,
  minus,
  plus,
  rounded,
  smaller,
  times,
  ZERO,
  type Exact,
} from './exact.ts';

/** What is scored on its own: a criterion, or a question. */
export interface Part {
  title: string;
  possible: Exact;
  /** Null while it is not scored. */
  points: Exact | null;
  /** Per cent of the result; where one part has a weight, all have. */
  weight?: Exact | undefined;
  /** Adds to the points, and nothing to what is possible. */
  bonus?: boolean | undefined;
  /** Left out, as if it were not there. */
  notAssessed?: boolean | undefined;
  /** The result as somebody typed it. What is too much is refused where it is typed; what stands is shown as it stands. */
  typed?: boolean | undefined;
}

/** What coming late costs. */
export interface LateRule {
  /** Minutes for which it costs nothing. */
  grace: number;
  /** Begun ones count. */
  unit: 'hour' | 'day';
  /** Per cent for each. */
  percent: Exact;
  /** Of the points that were earned, or of those that were possible. */
  of: 'earned' | 'possible';
  /** Per cent of the possible points below which lateness takes nobody. */
  floor: Exact;
}

/** `missing` counts as 0, `excused` is left out, `incomplete` is held back. */
export type Flag = 'missing' | 'incomplete' | 'excused';

export interface Level {
  name: string;
  /** Per cent of the possible points. */
  from: Exact;
}

export interface Case {
  parts: readonly Part[];
  /** What the result is out of, where parts have weights; otherwise it is the sum of their points. */
  possible?: Exact | undefined;
  /** Extra credit, in points. */
  extra?: Exact | undefined;
  late?: { minutes: number; rule: LateRule } | undefined;
  flag?: Flag | undefined;
  override?: { points: Exact; reason: string } | undefined;
  levels?: readonly Level[] | undefined;
  /** Decimals of points and per cent; the only rounding there is, half up. */
  decimals: number;
}

export interface Result {
  /** Null where there is no result: held back, left out, or not all scored. */
  points: Exact | null;
  possible: Exact;
  /** Rounded as points are, from the exact points. */
  percent: Exact | null;
  level: string | null;
  /** One sentence of arithmetic. */
  explanation: string;
}

/** Why there can be no result. */
export class CaseError extends Error {}

const HUNDRED = exact(100);
const MINUTES = { hour: 60, day: 24 * 60 };

/**
 * The result of a work, exactly: nothing is rounded before the end, and a level is reached by the unrounded share.
 * @throws CaseError where weights do not add up to 100, or some parts have none, or points lie outside what is possible
 */
export function resultOf(one: Case): Result {
  const parts = one.parts.filter(({ notAssessed }) => !notAssessed);
  for (const part of parts) refuseOutside(part);
  const weighted = weightsOf(parts);
  const possible = possibleIn(one, parts, weighted);
  const none = (explanation: string): Result => ({ points: null, possible, percent: null, level: null, explanation });
  if (one.flag === 'excused') return none('Excused: left out of everything.');
  if (one.flag === 'incomplete') return none('Incomplete: held back until the rest is there.');
  if (compared(possible, ZERO) <= 0) throw new CaseError('Nothing can be scored: there are no possible points.');
  if (one.override) {
    const { points, reason } = one.override;
    if (compared(points, ZERO) < 0) throw new CaseError('A result is not set to less than 0 points.');
    return finished(one, points, possible, `Set to ${text(points)} of ${text(possible)}: ${reason}`);
  }
  if (one.flag === 'missing') return finished(one, ZERO, possible, `Missing: 0 of ${text(possible)}`);
  const open = parts.filter(({ points, bonus }) => points === null && !bonus).map(({ title }) => title);
  if (open.length > 0) return none(`Not scored yet: ${open.join(', ')}.`);

  const earned = weighted ? weightedPoints(parts, possible) : summed(parts);
  const steps = [weighted ? weightedWords(parts, possible, earned) : summedWords(parts, earned)];
  let points = earned;
  if (one.extra && compared(one.extra, ZERO) !== 0) {
    points = plus(points, one.extra);
    steps.push(`with ${text(one.extra)} extra: ${text(points)}`);
  }
  if (compared(points, ZERO) < 0) {
    points = ZERO;
    steps.push('but not below 0');
  }
  const late = lateness(one, points, possible);
  if (late) {
    points = late.points;
    steps.push(`${late.words}: ${text(points)}`);
  }
  return finished(one, points, possible, `${steps.join(', ')} of ${text(possible)}`);
}

function refuseOutside({ title, points, possible, bonus, typed }: Part): void {
  if (points === null) return;
  if (compared(points, ZERO) < 0) throw new CaseError(`“${title}” has fewer than 0 points.`);
  if (!bonus && !typed && compared(points, possible) > 0)
    throw new CaseError(`“${title}” has ${decimalOf(points, 6)} points of ${decimalOf(possible, 6)}.`);
}

function weightsOf(parts: readonly Part[]): boolean {
  const own = parts.filter(({ bonus }) => !bonus);
  const having = own.filter(({ weight }) => weight !== undefined);
  if (having.length === 0) return false;
  if (having.length < own.length) throw new CaseError('Some parts have a weight and others have none.');
  const empty = own.find(({ possible }) => compared(possible, ZERO) <= 0);
  if (empty) throw new CaseError(`“${empty.title}” has a weight, but no possible points.`);
  return true;
}

/** What was not assessed gives its weight to the others in proportion. */
function weightSum(parts: readonly Part[]): Exact {
  return parts.filter(({ bonus }) => !bonus).reduce((sum, { weight }) => plus(sum, weight!), ZERO);
}

function possibleIn(one: Case, parts: readonly Part[], weighted: boolean): Exact {
  if (weighted) {
    const all = weightSum(one.parts);
    if (compared(all, HUNDRED) !== 0)
      throw new CaseError(`The weights add up to ${decimalOf(all, 6)} %, not to 100 %.`);
    return one.possible ?? HUNDRED;
  }
  return parts.filter(({ bonus }) => !bonus).reduce((sum, { possible }) => plus(sum, possible), ZERO);
}

const summed = (parts: readonly Part[]): Exact => parts.reduce((sum, { points }) => plus(sum, points ?? ZERO), ZERO);

function weightedPoints(parts: readonly Part[], possible: Exact): Exact {
  const all = weightSum(parts);
  if (compared(all, ZERO) <= 0) throw new CaseError('Nothing is left that has a weight.');
  const share = parts
    .filter(({ bonus }) => !bonus)
    .reduce((sum, part) => plus(sum, times(divided(part.points!, part.possible), part.weight!)), ZERO);
  const bonus = summed(parts.filter((part) => part.bonus));
  return plus(times(divided(share, all), possible), bonus);
}

const text = (value: Exact): string => decimalOf(value, 6);

const summedWords = (parts: readonly Part[], earned: Exact): string => {
  const terms = parts.filter(({ points }) => points !== null).map(({ points }) => text(points!));
  return terms.length > 1 ? `${terms.join(' + ')} = ${text(earned)}` : text(earned);
};

function weightedWords(parts: readonly Part[], possible: Exact, earned: Exact): string {
  const own = parts.filter(({ bonus }) => !bonus);
  const terms = own.map((part) => `${text(part.points!)}/${text(part.possible)} × ${text(part.weight!)} %`);
  const all = weightSum(parts);
  const over = compared(all, HUNDRED) === 0 ? '' : ` of ${text(all)} % that were assessed`;
  const bonus = parts
    .filter((part) => part.bonus && part.points !== null)
    .map(({ points }) => ` + ${text(points!)} bonus`);
  return `(${terms.join(' + ')})${over} × ${text(possible)}${bonus.join('')} = ${text(earned)}`;
}

/** Lateness takes nobody below the floor, and gives nobody anything. */
function lateness(one: Case, points: Exact, possible: Exact): { points: Exact; words: string } | undefined {
  if (!one.late) return undefined;
  const { minutes, rule } = one.late;
  const after = minutes - rule.grace;
  if (after <= 0) return undefined;
  const units = Math.ceil(after / MINUTES[rule.unit]);
  const base = rule.of === 'earned' ? points : possible;
  const off = times(base, divided(times(rule.percent, exact(units)), HUNDRED));
  const floor = smaller(points, times(possible, divided(rule.floor, HUNDRED)));
  const left = larger(minus(points, off), larger(floor, ZERO));
  const each = `${units} ${rule.unit}${units === 1 ? '' : 's'} late`;
  const share = `${text(times(rule.percent, exact(units)))} % of ${rule.of === 'earned' ? 'them' : text(possible)}`;
  return {
    points: left,
    words: `less ${share} for ${each}${compared(left, minus(points, off)) > 0 ? ', down to the floor' : ''}`,
  };
}

function finished(one: Case, points: Exact, possible: Exact, words: string): Result {
  const percent = times(divided(points, possible), HUNDRED);
  const level = one.levels
    ?.filter(({ from }) => compared(percent, from) >= 0)
    .reduce<Level | undefined>((best, next) => (best && compared(best.from, next.from) >= 0 ? best : next), undefined);
  const shown = rounded(points, one.decimals);
  const roundedOff = compared(shown, points) === 0 ? '' : `, rounded to ${decimalOf(points, one.decimals)}`;
  const end = `, that is ${decimalOf(percent, one.decimals)} %${level ? `: ${level.name}` : ''}.`;
  return {
    ...{ points: shown, possible, percent: rounded(percent, one.decimals), level: level?.name ?? null },
    explanation: `${words}${roundedOff}${end}`,
  };
}
