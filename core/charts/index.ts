import { activeSeconds } from '../pace/index.ts';
import { statisticsOf, trendOf, type Rubric, type Statistics, type Trend } from '../grading/index.ts';

/** A result as a share of what is possible, in per cent; more than 100 with extra credit. */
export const shareOf = ({
  points,
  possible,
}: {
  points: number | null;
  possible: number | null;
}): number | undefined => (points === null || !possible ? undefined : (100 * points) / possible);

export interface Bin<Work> {
  /** Per cent; the last one holds all from there. */
  from: number;
  works: Work[];
}

const BINS = 10;
const WIDTH = 100 / BINS;

/** How results are spread: ten steps of ten per cent, with quartiles. */
export function distribution<Work extends { points: number | null; possible: number | null }>(
  works: readonly Work[],
): { bins: Bin<Work>[]; statistics: Statistics } {
  const bins = Array.from({ length: BINS }, (_, step): Bin<Work> => ({ from: step * WIDTH, works: [] }));
  const shares: number[] = [];
  for (const work of works) {
    const share = shareOf(work);
    if (share === undefined) continue;
    shares.push(share);
    bins[Math.min(BINS - 1, Math.floor(share / WIDTH))]!.works.push(work);
  }
  return { bins, statistics: statisticsOf(shares) };
}

/** Which works have which level of each criterion, in the order of the rubric; works of an earlier rubric are in none. */
export const levelsAcross = <Work extends { levels: Record<string, string> }>(
  rubric: Rubric,
  works: readonly Work[],
): { criterion: Rubric[number]; levels: { title: string; works: Work[] }[] }[] =>
  rubric.map((criterion) => ({
    criterion,
    levels: criterion.levels.map(({ id, title }) => ({
      title,
      works: works.filter(({ levels }) => levels[criterion.id] === id),
    })),
  }));

export interface InOrder<Work> {
  /** In the order in which they were judged. */
  works: { work: Work; share: number; at: string }[];
  /** Per cent for each further work; undefined where there are too few. */
  trend: Trend | undefined;
}

/** Whether those that were judged later got less. */
export function inOrder<Work extends { points: number | null; possible: number | null; judgedAt: string | null }>(
  works: readonly Work[],
): InOrder<Work> {
  const judged = works
    .flatMap((work) => {
      const share = shareOf(work);
      return share === undefined || work.judgedAt === null ? [] : [{ work, share, at: work.judgedAt }];
    })
    .toSorted((a, b) => Date.parse(a.at) - Date.parse(b.at));
  return { works: judged, trend: trendOf(judged.map(({ share }, index) => [index, share])) };
}

/** Half a point in a hundred over all works is no trend, and neither is what explains next to nothing. */
const SMALLEST = 5;
const LEAST_EXPLAINED = 0.1;

/** What a trend says about so many works, in a sentence. */
export function trendWords(trend: Trend | undefined, works: number): string {
  if (!trend) return 'Too few works have been scored to tell.';
  const over = trend.slope * (works - 1);
  if (Math.abs(over) < SMALLEST || trend.r2 < LEAST_EXPLAINED)
    return 'Whether a work was marked early or late made no difference that one could tell.';
  return `From the first work to the last, results went ${over < 0 ? 'down' : 'up'} by about ${Math.round(Math.abs(over))} per cent.`;
}

/** Seconds: a longer pause is no work on it. */
const LONGEST_PAUSE = 600;

/** Seconds in which a work was marked; undefined where fewer than two things were done about it. */
export const markingSeconds = (moments: readonly string[]): number | undefined =>
  moments.length < 2
    ? undefined
    : activeSeconds(
        moments.map((moment) => Date.parse(moment) / 1000),
        LONGEST_PAUSE,
      );

/** Less than this share of the median is little. */
const LITTLE = 0.5;

/** Who is told little, and who hears of nothing but what is to be repaired. */
export function unheard<Student extends { seconds: number; kinds: Record<string, number>; submission: string | null }>(
  students: readonly Student[],
  repairs: string,
): { little: Student[]; onlyRepairs: Student[] } {
  const some = students.filter(({ submission }) => submission !== null);
  const median = statisticsOf(some.map(({ seconds }) => seconds)).median ?? 0;
  return {
    little: some.filter(({ seconds }) => seconds < LITTLE * median),
    onlyRepairs: some.filter(({ kinds }) => {
      const said = Object.entries(kinds).filter(([, count]) => count > 0);
      return said.length > 0 && said.every(([kind]) => kind === repairs);
    }),
  };
}
