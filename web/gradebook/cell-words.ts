import { formatHundredths, type Hundredths } from '#core/grading';
import type { GradeCell } from '#contract/gradebook';
import { counted } from '../wording/format.ts';
import { WORK_STATES } from '../wording/work-state.ts';

/** What a result is shown as. */
export type ShownAs = 'points' | 'percent' | 'level';

const percentOf = (points: Hundredths, possible: Hundredths): string =>
  `${Math.round((points * 1000) / possible) / 10} %`;

/** The result as it stands in a cell; empty where there is none. */
export function resultWords(
  { points, possible, grade }: Pick<GradeCell, 'points' | 'possible' | 'grade'>,
  as: ShownAs,
): string {
  if (points === null) return '';
  if (as === 'level' && grade !== null) return grade;
  return as === 'percent' && possible ? percentOf(points, possible) : formatHundredths(points);
}

/** A result that its student does not see yet. */
export const isDraft = (cell: GradeCell): boolean => cell.points !== null && !cell.returned;

/** How far it is, as a sign of its own shape. */
export function signOf(cell: GradeCell): string {
  if (cell.state) return WORK_STATES[cell.state].sign;
  if (cell.entered) return WORK_STATES[cell.returned ? 'returned' : 'begun'].sign;
  return '';
}

/** All that a cell says, for whoever does not see it. */
export function cellWords(cell: GradeCell | null | undefined): string {
  if (!cell) return 'nothing yet';
  if (cell.nameless) return 'marked without names';
  const { points, possible, flag, late, again, state, entered, returned, spoken, heard, unanswered } = cell;
  return [
    ...(flag ? [flag] : []),
    ...(points === null
      ? []
      : [`${formatHundredths(points)}${possible === null ? '' : ` of ${formatHundredths(possible)}`}`]),
    state ? WORK_STATES[state].name : entered ? (returned ? 'typed and returned' : 'typed, a draft') : 'not handed in',
    ...(again ? ['new version to mark; the returned grade stands'] : []),
    ...(late ? ['late'] : []),
    ...(spoken > 0 ? [`${counted(spoken, 'spoken remark')}, ${heard} heard`] : []),
    ...(unanswered > 0 ? [`${counted(unanswered, 'answer')} waiting`] : []),
  ].join(', ');
}
