import { formatHundredths, type Flag, type Hundredths } from '../grading/index.ts';
import { readEntry, type Entry } from './entry.ts';

export interface ListedStudent {
  id: string;
  name: string;
  /** Empty where nobody said. */
  number: string;
  mail: string;
}

export interface ListedColumn {
  id: string;
  title: string;
  possible: Hundredths | null;
}

/** What stands in a cell now. */
export interface Standing {
  points: Hundredths | null;
  flag: Flag | null;
  /** Why it does not take a grade; undefined where it does. */
  locked: string | undefined;
}

/** Why a cell takes no grade from elsewhere, as a sentence; undefined where it does. */
export function lockOf(
  cell: { nameless: boolean; again: boolean; state: string | null } | null | undefined,
): string | undefined {
  if (cell?.nameless) return NAMELESS;
  if (cell?.again) return 'A new version is to be marked at the desk. The grade that was returned stands until then.';
  return cell?.state === 'returned' ? 'It has been returned. Take it back at the desk to change it.' : undefined;
}
const NAMELESS = 'It is marked without names.';

/** Whether a lock keeps out what a cell is to become. A flag may be changed after a return, but not where it would tell whose a work is. */
export const keepsOut = (locked: string | undefined, to: object): boolean =>
  locked !== undefined && ('points' in to || locked === NAMELESS);

export interface PlannedCell {
  /** Of the table, from 1. */
  line: number;
  /** As the table calls them, where nobody is meant. */
  student: string;
  /** Empty where the whole line is refused. */
  assignment: string;
  from: string;
  to: string;
  fate: 'new' | 'changed' | 'unchanged' | 'refused';
  /** Why it is refused, as a sentence. */
  why?: string;
  change?: { student: string; assignment: string; to: { points?: Hundredths; flag?: Flag | null } };
}

export interface ImportPlan {
  /** Why nothing of the table can be taken, as a sentence. */
  problem?: string;
  /** Heads that are none of the assignments, and so passed over. */
  passedOver: string[];
  cells: PlannedCell[];
}

/** What heads of columns say who a line is about, in small letters. */
const KNOWN_BY = {
  number: ['number', 'student number', 'no', 'no.', 'id', 'student id'],
  mail: ['mail', 'e-mail', 'email'],
  name: ['student', 'name', 'student name'],
} as const;
/** Of our own exports; they follow from the others. */
const DERIVED = ['course grade', 'course per cent'];

const plain = (text: string): string => text.trim().toLowerCase().replace(/\s+/gu, ' ');
/** `First sounding [10]` and `First sounding (of 10)` are First sounding. */
const titleOf = (head: string): string =>
  plain(head)
    .replace(/(?:\[[\d.,]+\]|\((?:of|out of) [\d.,]+\))$/u, '')
    .trimEnd();
/** What was made safe against being taken for a formula is as it was. */
const unescaped = (cell: string): string => cell.replace(/^'(?=[=+\-@])/u, '');

/**
 * What a table of grades would change: a head that says who and what, then a line for each student. Empty cells change nothing.
 * @param rows as they were read, without formulas
 * @param standingOf what stands in a cell now
 */
export function planImport(
  rows: readonly (readonly string[])[],
  { students, columns }: { students: readonly ListedStudent[]; columns: readonly ListedColumn[] },
  standingOf: (student: string, assignment: string) => Standing,
): ImportPlan {
  const head = (rows[0] ?? []).map(unescaped);
  const whoAt = (Object.keys(KNOWN_BY) as (keyof typeof KNOWN_BY)[]).flatMap((by) => {
    const at = head.findIndex((text) => (KNOWN_BY[by] as readonly string[]).includes(plain(text)));
    return at < 0 ? [] : [{ by, at }];
  });
  const none = (problem: string): ImportPlan => ({ problem, passedOver: [], cells: [] });
  if (whoAt.length === 0)
    return none('The first line must say what is in each column, and one of them must be Student, Number or Mail.');
  const taken = head.flatMap((text, at) => {
    const found = columns.filter(({ title }) => titleOf(title) === titleOf(text) || plain(title) === plain(text));
    return found.length === 0 ? [] : [{ at, found }];
  });
  const double = taken.find(
    ({ found }, index) => found.length > 1 || taken.findIndex((one) => one.found[0] === found[0]) < index,
  );
  if (double) return none(`“${head[double.at]!.trim()}” could be more than one assignment, so nothing is taken.`);
  const passedOver = head.filter(
    (text, at) =>
      text.trim() !== '' &&
      !DERIVED.includes(plain(text)) &&
      !whoAt.some((who) => who.at === at) &&
      !taken.some((one) => one.at === at),
  );
  if (taken.length === 0) return { ...none('No column is called like one of the assignments.'), passedOver };

  const metOn = new Map<string, number>();
  const cells = rows.slice(1).flatMap((row, index): PlannedCell[] => {
    const line = index + 2;
    if (row.every((cell) => cell.trim() === '')) return [];
    const found = whoIs(row, whoAt, students);
    if (typeof found === 'string') return [refused(line, row[whoAt.at(-1)!.at] ?? '', '', '', found)];
    const before = metOn.get(found.id);
    if (before !== undefined) return [refused(line, found.name, '', '', `${found.name} is on line ${before} already.`)];
    metOn.set(found.id, line);
    return taken.flatMap(({ at, found: [column] }) => {
      const text = unescaped(row[at] ?? '').trim();
      return text === '' ? [] : [cellOf(line, found, column!, text, standingOf(found.id, column!.id))];
    });
  });
  return { passedOver, cells };
}

const refused = (line: number, student: string, assignment: string, to: string, why: string): PlannedCell => ({
  ...{ line, student, assignment, from: '', to, fate: 'refused', why },
});

/** The student of a line by the first column that says so; otherwise why there is none. */
function whoIs(
  row: readonly string[],
  whoAt: readonly { by: 'number' | 'mail' | 'name'; at: number }[],
  students: readonly ListedStudent[],
): ListedStudent | string {
  for (const { by, at } of whoAt) {
    const text = plain(unescaped(row[at] ?? ''));
    if (text === '') continue;
    const found = students.filter((student) => plain(student[by]) === text);
    if (found.length === 1) return found[0]!;
    if (found.length > 1) return `${found.length} students are called so. Their numbers would tell them apart.`;
    if (by !== 'name' && whoAt.some((who) => who.by === 'name')) continue;
    return 'Nobody in this course is called so.';
  }
  return 'The line does not say whose it is.';
}

const words = ({ points, flag }: Pick<Standing, 'points' | 'flag'>): string =>
  flag ?? (points === null ? '' : formatHundredths(points));

function cellOf(line: number, student: ListedStudent, column: ListedColumn, text: string, now: Standing): PlannedCell {
  const entry: Entry | { problem: string } = readEntry(text, column.possible);
  const place = { line, student: student.name, assignment: column.title, from: words(now) };
  if ('problem' in entry) return { ...place, to: text, fate: 'refused', why: entry.problem };
  const to = 'flag' in entry ? { flag: entry.flag } : { points: entry.points!, ...(now.flag && { flag: null }) };
  const shown = words({ points: null, flag: null, ...to });
  if (shown === place.from) return { ...place, to: shown, fate: 'unchanged' };
  if (now.locked !== undefined && keepsOut(now.locked, to))
    return { ...place, to: shown, fate: 'refused', why: now.locked };
  if ('points' in to && column.possible === null)
    return { ...place, to: shown, fate: 'refused', why: 'Say first what this assignment is out of.' };
  return {
    ...{ ...place, to: shown, fate: place.from === '' ? 'new' : 'changed' },
    change: { student: student.id, assignment: column.id, to },
  };
}
