/** What somebody may want to be told: never a grade, nor a word of a work or of a remark. */
export const NEWS_KINDS = ['returned', 'answered', 'handedIn', 'asked'] as const;
export type NewsKind = (typeof NEWS_KINDS)[number];

export interface News {
  kind: NewsKind;
  /** The title of the assignment. */
  assignment: string;
  count: number;
}

/** Hours from 0 to 23; from and to the same is never quiet. */
export interface Quiet {
  from: number;
  to: number;
}

/** Whether an hour of the day (0 to 23) is one in which nothing is sent; the hour `to` is not quiet any more. */
export const isQuiet = (hour: number, { from, to }: Quiet): boolean =>
  from <= to ? hour >= from && hour < to : hour >= from || hour < to;

/**
 * The hour of the day in a time zone of the IANA database, from 0 to 23.
 * @throws RangeError where there is no such zone
 */
export const hourIn = (at: Date, zone: string): number =>
  Number(new Intl.DateTimeFormat('en', { hour: '2-digit', hourCycle: 'h23', timeZone: zone }).format(at));

const some = (count: number, one: string, many: string): string => (count === 1 ? one : `${count} ${many}`);

const SENTENCES: Record<NewsKind, (news: News) => string> = {
  returned: ({ assignment }) => `Your work came back: ${assignment}.`,
  answered: ({ assignment, count }) => `${some(count, 'An answer', 'answers')} from your teacher: ${assignment}.`,
  handedIn: ({ assignment, count }) => `${some(count, 'One work came in', 'works came in')}: ${assignment}.`,
  asked: ({ assignment, count }) => `${some(count, 'One answer', 'answers')} from students: ${assignment}.`,
};

/** What is new, as one sentence. */
export const newsSentence = (news: News): string => SENTENCES[news.kind](news);
