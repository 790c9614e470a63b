import { activeSeconds } from '../pace/index.ts';
import { rankTrend, statisticsOf, type RankTrend, type Rubric, type Statistics } from '../grading/index.ts';

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
  /** In the order in which they were judged first. */
  works: { work: Work; share: number; at: string }[];
  /** Per cent for each further work; undefined where there are too few. */
  trend: RankTrend | undefined;
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
  return { works: judged, trend: rankTrend(judged.map(({ share }) => share)) };
}

/** Percentage points from the first work to the last; less than that is nothing to speak of. */
const SMALLEST = 5;
/** Below one in twenty, with room for results that are alike, of which the chance is told by a normal distribution. */
const MOST_BY_CHANCE = 0.04;

/** Whether a drift may be claimed. */
export const isDrift = (trend: RankTrend | undefined, works: number): trend is RankTrend =>
  trend !== undefined && trend.p < MOST_BY_CHANCE && Math.abs(trend.slope * (works - 1)) >= SMALLEST;

/** What a trend says about so many works, in a sentence. */
export function trendWords(trend: RankTrend | undefined, works: number): string {
  if (!trend) return 'Too few works have been scored to tell.';
  const over = (slope: number): number => Math.round(slope * (works - 1));
  const [low, high] = trend.interval.map(over) as [number, number];
  const interval = `95 % interval ${signed(low)} to ${signed(high)}`;
  if (!isDrift(trend, works))
    return `No sign that marking became stricter or more lenient over time (${interval} percentage points).`;
  const change = over(trend.slope);
  return `From the first work to the last, results went ${change < 0 ? 'down' : 'up'} by about ${Math.abs(change)} percentage points (${interval}; Kendall’s tau ${trend.tau.toFixed(2)}, p ${trend.p < 0.001 ? '< 0.001' : `= ${trend.p.toFixed(3)}`}).`;
}

const signed = (value: number): string => (value < 0 ? `−${-value}` : `${value}`);

/** The criterion on which most works lost points, by the points of their levels; undefined where none did. */
export function weakest<Work extends { levels: Record<string, string> }>(
  rubric: Rubric,
  works: readonly Work[],
): { title: string; works: number } | undefined {
  const lost = rubric.map(({ id, title, levels }) => {
    const most = Math.max(0, ...levels.map(({ points }) => points));
    const low = new Set(levels.filter(({ points }) => points < most).map((level) => level.id));
    return { title, works: works.filter((work) => low.has(work.levels[id] ?? '')).length };
  });
  return lost.filter((one) => one.works > 0).toSorted((a, b) => b.works - a.works)[0];
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
