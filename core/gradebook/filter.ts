/** What of a gradebook is shown. */
export interface GradebookFilter {
  /** Empty for all. */
  term: string;
  /** Null for all. */
  category: string | null;
  /** Days when it is due, as `2026-11-28`; empty for no bound. */
  from: string;
  to: string;
  /** A part of a student's name. */
  search: string;
  /** Students who are in the course no more are shown, too. */
  left: boolean;
}

export const WHOLE_GRADEBOOK: GradebookFilter = { term: '', category: null, from: '', to: '', search: '', left: false };

/** Instead of the name of a term: what is in none. */
export const NO_TERM = '\u0000';

interface Filtered {
  term: string | null;
  category: string;
  /** An ISO 8601 instant. */
  dueAt: string | null;
}

/** Why an assignment is not shown. */
export type HiddenBy = 'term' | 'category' | 'dates';

/**
 * Why an assignment is not shown; undefined where it is. What is due at no time lies in no range of dates.
 * @param dayOf the day of an instant where the person is, as `2026-11-28`
 */
export function hiddenBy(
  { term, category, dueAt }: Filtered,
  filter: GradebookFilter,
  dayOf: (instant: string) => string,
): HiddenBy | undefined {
  if (filter.term !== '' && (filter.term === NO_TERM ? term !== null : term !== filter.term)) return 'term';
  if (filter.category !== null && category !== filter.category) return 'category';
  if (filter.from === '' && filter.to === '') return undefined;
  const day = dueAt === null ? undefined : dayOf(dueAt);
  const inside =
    day !== undefined && (filter.from === '' || day >= filter.from) && (filter.to === '' || day <= filter.to);
  return inside ? undefined : 'dates';
}

const BY: Record<HiddenBy, string> = { term: 'the term', category: 'the category', dates: 'the dates' };

/** `3 of 12 assignments are hidden by the term and the dates.`; undefined where none is. */
export function hiddenSentence(reasons: readonly (HiddenBy | undefined)[]): string | undefined {
  const hidden = reasons.filter((reason) => reason !== undefined);
  if (hidden.length === 0) return undefined;
  const by = (Object.keys(BY) as HiddenBy[]).filter((reason) => hidden.includes(reason)).map((reason) => BY[reason]);
  const words = by.length > 1 ? `${by.slice(0, -1).join(', ')} and ${by.at(-1)}` : by[0]!;
  const number = hidden.length === reasons.length ? `All ${reasons.length}` : `${hidden.length} of ${reasons.length}`;
  return `${number} ${reasons.length === 1 ? 'assignment is' : 'assignments are'} hidden by ${words}.`;
}

/** Letters that only differ by their marks are the same. */
const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** Whether each word of what is searched for begins a word of the name. */
export const isNamed = (name: string, search: string): boolean => {
  const words = plain(name).split(/\s+/u);
  return plain(search)
    .split(/\s+/u)
    .every((wanted) => words.some((word) => word.startsWith(wanted)));
};
