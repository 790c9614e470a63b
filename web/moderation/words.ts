import { formatHundredths, scoreWords, type Criterion, type Score } from '#core/grading';
import type { Agreement } from '#core/grading';
import type { Reason } from '#core/moderation';

/** Why a work is marked a second time. */
export const REASONS: Record<Reason, string> = {
  random: 'by chance',
  border: 'near a border of grades',
  highest: 'among the highest',
  lowest: 'among the lowest',
};

/** A score beside its points. */
export function scoreWithPoints(criterion: Criterion, score: Score | undefined): string {
  const words = scoreWords(criterion, score);
  const level = score && 'level' in score ? criterion.levels.find(({ id }) => id === score.level) : undefined;
  return level ? `${words} (${formatHundredths(level.points)})` : words;
}

export const percentWords = (value: number | null): string => (value === null ? '–' : `${Math.round(value)} %`);
export const measureWords = (value: number | null): string => (value === null ? '–' : value.toFixed(2));

/** Where the second marker stands to the first, in levels. */
export function shiftWords(shift: number | null): string {
  if (shift === null) return '–';
  const size = Math.abs(shift).toFixed(1);
  return size === '0.0' ? 'the same on average' : `${size} ${shift < 0 ? 'lower' : 'higher'} on average`;
}

/** What the measures say, in a sentence that does not promise more than a few works can tell. */
export function agreementWords(works: number, all: readonly Agreement[]): string {
  const exact = all.flatMap((one) => one.exact ?? []);
  if (exact.length === 0) return 'Nothing was scored by both.';
  const mean = Math.round(exact.reduce((sum, one) => sum + one, 0) / exact.length);
  const few = works < 10 ? ' With so few works, one more could change these figures a lot.' : '';
  return `Both gave the same level in ${mean} % of all scores.${few}`;
}
