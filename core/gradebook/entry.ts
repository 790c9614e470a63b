import { parseHundredths, pointsProblem, type Flag, type Hundredths } from '../grading/index.ts';

/** What somebody types into a cell. */
export type Entry = { points: Hundredths | null } | { flag: Flag };

/** Letters that set a flag, by themselves or as the beginning of its name. */
export const FLAG_KEYS = { m: 'missing', e: 'excused', i: 'incomplete' } as const satisfies Record<string, Flag>;

/** More is a slip of the finger. */
export const LARGEST_POINTS: Hundredths = 1_000_00;

const flagOf = (text: string): Flag | undefined => {
  const flag: Flag | undefined = FLAG_KEYS[text[0] as keyof typeof FLAG_KEYS];
  return flag?.startsWith(text) ? flag : undefined;
};

/**
 * Reads what was typed or pasted: `7.5` and `7,5` are points, `80%` is a share of what is possible (rounded half up), `m`, `e` and
 * `i` are flags, nothing empties the cell.
 * @param possible null where nobody has said what it is out of
 * @returns a sentence where it is none of these
 */
export function readEntry(text: string, possible: Hundredths | null): Entry | { problem: string } {
  const written = text.trim().toLowerCase();
  if (written === '') return { points: null };
  const flag = flagOf(written);
  if (flag) return { flag };
  const share = written.endsWith('%');
  const number = parseHundredths(share ? written.slice(0, -1) : written);
  if (number === undefined)
    return { problem: `“${text.trim()}” is no grade. Type points like 7.5, a share like 80%, or m, e or i.` };
  if (share && possible === null) return { problem: 'Say first what this assignment is out of.' };
  const points = share ? Math.round((number * possible!) / 100_00) : number;
  const problem = pointsProblem(points, possible);
  if (problem !== undefined) return { problem };
  return points > LARGEST_POINTS ? { problem: `${text.trim()} points are more than anything gives.` } : { points };
}
