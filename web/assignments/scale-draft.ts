import { formatHundredths, parseHundredths, type Band } from '#core/grading';

/** A step of a scale while it is being written. */
export interface BandDraft {
  grade: string;
  /** Per cent, as it was typed. */
  from: string;
}

const scale = (...steps: [grade: string, from: number][]): Band[] =>
  steps.map(([grade, from]) => ({ grade, from: from * 100 }));

/** Scales to begin with. */
export const SCALES: { title: string; scale: Band[] }[] = [
  { title: 'Passed or not', scale: scale(['Passed', 50], ['Not yet passed', 0]) },
  { title: 'Four steps', scale: scale(['Strong', 85], ['Secure', 70], ['On the way', 50], ['Not yet', 0]) },
  { title: 'Letters', scale: scale(['A', 90], ['B', 80], ['C', 70], ['D', 60], ['E', 0]) },
  { title: 'None', scale: [] },
];

export const bandWords = (bands: readonly Band[]): BandDraft[] =>
  bands.map(({ grade, from }) => ({ grade, from: formatHundredths(from) }));

/** What is wrong, as a sentence; undefined where all is well. */
export function scaleFault(bands: readonly BandDraft[]): string | undefined {
  const names = bands.map(({ grade }) => grade.trim());
  if (names.some((name) => name === '')) return 'Each step needs a name.';
  if (new Set(names).size < names.length) return 'Each name stands once in a scale.';
  const from = bands.map((band) => parseHundredths(band.from));
  if (from.some((share) => share === undefined || share < 0 || share > 100_00))
    return 'A step begins at a number from 0 to 100, with at most two decimals.';
  if (new Set(from).size < from.length) return 'Two steps begin at the same share.';
  return undefined;
}

/** Call where nothing is wrong. */
export const bandsOf = (bands: readonly BandDraft[]): Band[] =>
  bands.map(({ grade, from }) => ({ grade: grade.trim(), from: parseHundredths(from)! }));
