import { compared, decimalOf, exact, rounded, type Exact } from './exact.ts';
import { formatHundredths, type Hundredths } from './hundredths.ts';
import type { Flag } from './result.ts';
import type { Scale } from './sheet.ts';

/** What the assignments of one category add to the result of their course. */
export interface Category {
  /** As its assignments name it. */
  name: string;
  /** Hundredths of a per cent of the result; null where it does not count. */
  weight: Hundredths | null;
  /** So many of the lowest results are left out, but never all. */
  drop: number;
  /** Each assignment counts as much as the next, however many points it has. */
  equal: boolean;
}

/** How results make the result of a course. */
export interface CourseScheme {
  /** All points added up, or by the weights of the assignments, or by those of their categories. */
  count: 'points' | 'assignments' | 'categories';
  categories: readonly Category[];
  scale: Scale;
  /** Decimals of the per cent, 0 to 2. */
  decimals: number;
  /** Students see what it comes to. */
  shown: boolean;
}

export const PLAIN_SCHEME: CourseScheme = { count: 'points', categories: [], scale: [], decimals: 1, shown: true };

export interface CourseItem {
  title: string;
  category: string;
  /** Hundredths of a per cent; null for none. */
  weight: Hundredths | null;
  /** Extra credit: adds to what is earned and nothing to what is possible. */
  extra: boolean;
  /** What a work that is missing is out of; null where nobody has said. */
  possible: Hundredths | null;
}

/** One student's result of one assignment. */
export interface CourseCell {
  /** Null while there is none. */
  points: Hundredths | null;
  possible: Hundredths | null;
  flag: Flag | null;
}

/** What became of one assignment in the result of the course. */
export type Fate = 'counts' | 'dropped' | 'excused' | 'incomplete' | 'open' | 'noWeight';

export interface CourseGroup {
  /** The category; empty where all assignments are one group. */
  name: string;
  /** Hundredths of a per cent; null where there is one group. */
  weight: Hundredths | null;
  /** 1 for all of it; null while nothing of it counts. */
  share: Exact | null;
}

export interface CourseGrade {
  /** Hundredths of a per cent, rounded half up to the decimals of the scheme; null while nothing counts. */
  percentage: Hundredths | null;
  /** The band that the unrounded share reaches. */
  grade: string | null;
  /** In the order of the items. */
  fates: readonly Fate[];
  groups: readonly CourseGroup[];
  /** Hundredths of a per cent of the result that are there; null where nothing has a weight. */
  counted: Hundredths | null;
}

/** A result that counts; in hundredths. */
interface Counting {
  at: number;
  points: number;
  possible: number;
  extra: boolean;
}

/*
 * Sums of fractions are left as they are until the end: whole numbers of any size are added quicker than they are cancelled, and a
 * course of a thousand has tens of thousands of them.
 */
const NOTHING: Exact = { of: 0n, over: 1n };
const sum = (a: Exact, b: Exact): Exact =>
  a.over === b.over ? { of: a.of + b.of, over: a.over } : { of: a.of * b.over + b.of * a.over, over: a.over * b.over };

/**
 * Prepares a scheme for many students of one course.
 * @returns a function from one student's cells, in the order of the items, to the result of the course; exactly, rounded once
 */
export function courseGrader(
  items: readonly CourseItem[],
  scheme: CourseScheme,
): (cells: readonly (CourseCell | undefined)[]) => CourseGrade {
  const { count, categories } = scheme;
  const categoryOf = items.map(({ category }) => categories.findIndex(({ name }) => name === category));
  const weightOf = items.map((item, at) =>
    count === 'points' ? 1 : count === 'assignments' ? item.weight : (categories[categoryOf[at]!]?.weight ?? null),
  );
  const bands = scheme.scale
    .map(({ grade, from }) => ({ grade, from: exact(from, 100_00) }))
    .sort((a, b) => compared(b.from, a.from));

  const dropping = categories.flatMap(({ drop }, index) => (drop > 0 ? [{ drop, index }] : []));

  return (cells) => {
    const counting: Counting[] = [];
    const fates = items.map((item, at): Fate => {
      const cell = cells[at];
      if (cell?.flag === 'excused' || cell?.flag === 'incomplete') return cell.flag;
      if (!weightOf[at]) return 'noWeight';
      const given = pointsOf(item, cell);
      if (!given) return 'open';
      counting.push({ at, points: given.points, possible: given.possible, extra: item.extra });
      return 'counts';
    });
    for (const { drop, index } of dropping) {
      const own = counting.filter((one) => categoryOf[one.at] === index && !one.extra);
      for (const { at } of lowest(own, drop)) fates[at] = 'dropped';
    }
    const left = counting.filter(({ at }) => fates[at] === 'counts');

    const groups: CourseGroup[] =
      count === 'categories'
        ? categories
            .map((category, index) => ({ category, own: left.filter(({ at }) => categoryOf[at] === index) }))
            .filter(({ category }) => category.weight)
            .map(({ category: { name, weight, equal }, own }) => ({
              ...{ name, weight },
              share: equal ? weighted(own, () => 1) : added(own),
            }))
        : [
            {
              ...{ name: '', weight: null },
              share: count === 'points' ? added(left) : weighted(left, ({ at }) => weightOf[at]!),
            },
          ];
    const { share, counted } = count === 'categories' ? together(groups) : { ...groups[0]!, counted: null };
    return {
      ...{ fates, groups },
      counted:
        count === 'assignments'
          ? left.filter(({ extra }) => !extra).reduce((all, { at }) => all + weightOf[at]!, 0)
          : counted,
      percentage: share && inHundredths(share, scheme.decimals),
      grade: share ? (bands.find(({ from }) => compared(share, from) >= 0)?.grade ?? null) : null,
    };
  };
}

function pointsOf(item: CourseItem, cell: CourseCell | undefined): { points: number; possible: number } | undefined {
  if (cell?.flag === 'missing') {
    const possible = cell.possible ?? item.possible;
    return possible ? { points: 0, possible } : undefined;
  }
  if (!cell || cell.points === null || (!cell.possible && !item.extra)) return undefined;
  return { points: cell.points, possible: cell.possible ?? 0 };
}

/** Of alike ones, the last; always one stays. */
function lowest(counting: readonly Counting[], drop: number): Counting[] {
  const most = Math.min(drop, counting.length - 1);
  if (most <= 0) return [];
  return counting.toSorted((a, b) => a.points * b.possible - b.points * a.possible || b.at - a.at).slice(0, most);
}

/** All that was earned of all that was possible; null where nothing was. */
function added(counting: readonly Counting[]): Exact | null {
  let [points, possible] = [0, 0];
  for (const one of counting) {
    points += one.points;
    if (!one.extra) possible += one.possible;
  }
  return possible === 0 ? null : { of: BigInt(points), over: BigInt(possible) };
}

/** The mean of the shares; null where nothing has a weight. Those that are out of the same are added before they are divided. */
function weighted(counting: readonly Counting[], weightOf: (one: Counting) => number): Exact | null {
  const earned = new Map<number, number>();
  let weights = 0;
  for (const one of counting) {
    const weight = weightOf(one);
    if (!one.extra) weights += weight;
    if (one.possible > 0) earned.set(one.possible, (earned.get(one.possible) ?? 0) + one.points * weight);
  }
  if (weights === 0) return null;
  let share = NOTHING;
  for (const [possible, points] of earned) share = sum(share, { of: BigInt(points), over: BigInt(possible) });
  return { of: share.of, over: share.over * BigInt(weights) };
}

/** Groups of which nothing counts yet give their weight to the others. */
function together(groups: readonly CourseGroup[]): { share: Exact | null; counted: Hundredths } {
  let [share, counted] = [NOTHING, 0];
  for (const group of groups) {
    if (!group.share || !group.weight) continue;
    counted += group.weight;
    share = sum(share, { of: group.share.of * BigInt(group.weight), over: group.share.over });
  }
  return { share: counted === 0 ? null : { of: share.of, over: share.over * BigInt(counted) }, counted };
}

const inHundredths = (share: Exact, decimals: number): Hundredths => {
  const percent = rounded({ of: share.of * 100n, over: share.over }, decimals);
  return Number((percent.of * 100n) / percent.over);
};

const percentOf = (share: Exact, decimals: number): string =>
  `${decimalOf({ of: share.of * 100n, over: share.over }, decimals)} %`;

const FATE_WORDS: Record<Exclude<Fate, 'counts'>, string> = {
  dropped: 'left out as the lowest',
  excused: 'excused',
  incomplete: 'incomplete, so held back',
  open: 'not graded yet',
  noWeight: 'without a weight',
};

/** How the result of a course came about: a sentence for each group, then what it comes to, then what does not count and why. */
export function explainCourse(
  items: readonly CourseItem[],
  cells: readonly (CourseCell | undefined)[],
  scheme: CourseScheme,
): string[] {
  const { fates, groups, percentage, grade, counted } = courseGrader(items, scheme)(cells);
  const at = (fate: Fate): number[] => items.flatMap((_, index) => (fates[index] === fate ? [index] : []));
  const words = (index: number): string => {
    const { points, possible } = pointsOf(items[index]!, cells[index])!;
    const earned = `${items[index]!.title} ${formatHundredths(points)}`;
    if (items[index]!.extra) return `${earned} extra`;
    const weight = scheme.count === 'assignments' ? ` (${formatHundredths(items[index]!.weight!)} %)` : '';
    return `${earned} of ${formatHundredths(possible)}${weight}`;
  };
  const lines = groups.flatMap(({ name, weight, share }) => {
    const own = at('counts').filter((index) => scheme.count !== 'categories' || items[index]!.category === name);
    const called = weight === null ? '' : `${name}, ${formatHundredths(weight)} %: `;
    if (!share) return weight === null ? [] : [`${called}nothing counts yet.`];
    return [`${called}${own.map(words).join(', ')}. Together ${percentOf(share, scheme.decimals)}.`];
  });
  if (percentage === null) lines.push('Nothing counts yet.');
  else {
    // Only while something is still to come: what is excused or has no weight never will.
    const open = at('open').length + at('incomplete').length > 0;
    const partly =
      counted !== null && counted !== 100_00
        ? ` of the ${formatHundredths(counted)} % that count${open ? ' so far' : ''}`
        : '';
    lines.push(`${formatHundredths(percentage)} %${partly}${grade ? `: ${grade}` : ''}.`);
  }
  const left = (Object.keys(FATE_WORDS) as (keyof typeof FATE_WORDS)[]).filter((fate) => at(fate).length > 0);
  return [
    ...lines,
    ...left.map(
      (fate) =>
        `Not counted, ${FATE_WORDS[fate]}: ${at(fate)
          .map((index) => items[index]!.title)
          .join(', ')}.`,
    ),
  ];
}

/** What keeps a scheme from being used; undefined where nothing does. */
export function schemeProblem({ count, categories }: CourseScheme): string | undefined {
  const names = categories.map(({ name }) => name);
  const twice = names.find((name, index) => names.indexOf(name) !== index);
  if (twice !== undefined) return `“${twice}” is there twice.`;
  if (count !== 'categories') return undefined;
  const all = categories.reduce((total, { weight }) => total + (weight ?? 0), 0);
  return all === 100_00
    ? undefined
    : `The weights of the categories add up to ${formatHundredths(all)} %, not to 100 %.`;
}
