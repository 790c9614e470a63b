import { keepsOut, readEntry } from '../gradebook/index.ts';
import { formatHundredths, type Flag, type Hundredths } from '../grading/index.ts';
import { fateOf, planRoster, type Known, type PlannedLine } from '../roster/index.ts';
import type { IncomingClass, IncomingItem, IncomingStudent } from './read.ts';

export interface OwnColumn {
  id: string;
  title: string;
  possible: Hundredths | null;
}

/** What stands in a cell now, and why it takes no grade, where it takes none. */
export interface OwnCell {
  points: Hundredths | null;
  flag: Flag | null;
  locked: string | undefined;
}

/** The course as it is. */
export interface Own {
  known: readonly Known[];
  columns: readonly OwnColumn[];
  cellOf: (student: string, assignment: string) => OwnCell;
}

/** A line as it is shown before anything is done. */
export interface ShownLine {
  file: string;
  line: number;
  what: string;
  from: string;
  to: string;
  fate: 'new' | 'changed' | 'unchanged' | 'refused';
  why?: string;
}

export interface PlannedStudent {
  incoming: IncomingStudent;
  /** Who it is; null where they are new to the school. */
  person: string | null;
  /** What comes of them; results are taken for whoever is in the course. */
  fate: 'add' | 'join' | 'known' | 'invite';
}

export interface OneRosterPlan {
  lines: ShownLine[];
  students: PlannedStudent[];
  /** By the ids of the file: which assignment it is, or null where it is to be made. */
  items: { incoming: IncomingItem; assignment: string | null }[];
  /** By the ids of the file. */
  cells: { student: string; item: string; to: { points?: Hundredths | null; flag?: Flag | null } }[];
}

const WHY: Record<Extract<PlannedLine, { fate: 'refuse' }>['why'], string> = {
  noName: 'There is no name.',
  longName: 'The name is too long.',
  noMail: 'The mail address is none.',
  twice: 'Somebody else in the file has the same number or mail address.',
  otherName: 'The school knows this number or mail address under another name.',
  teaches: 'They teach this course.',
};
const LONGEST_TITLE = 200;

const fold = (text: string): string => text.normalize('NFKC').trim().toLowerCase();

/** What a class out of a file would change in a course. Nothing is taken away. */
export function planOneRoster(incoming: IncomingClass, own: Own): OneRosterPlan {
  const { lines: studentLines, students } = planStudents(incoming, own);
  const { lines: itemLines, items } = planItems(incoming, own);
  const plan = { students, items };
  const { lines: resultLines, cells } = planResults(incoming, own, plan);
  const refused = incoming.refused.map((line): ShownLine => ({ ...line, from: '', to: '', fate: 'refused' }));
  return { ...plan, cells, lines: [...refused, ...studentLines, ...itemLines, ...resultLines] };
}

function planStudents(incoming: IncomingClass, { known }: Own): { lines: ShownLine[]; students: PlannedStudent[] } {
  // Whoever comes out of an export of ours is known by our own id.
  const byId = new Map(known.map((one) => [one.id, one]));
  const planned = planRoster(
    incoming.students.map(({ id, ...one }) => ({ ...one, ...numberAndMail(byId.get(id)) })),
    known,
  );
  const lines: ShownLine[] = [];
  const students: PlannedStudent[] = [];
  for (const [index, one] of incoming.students.entries()) {
    const same = byId.get(one.id);
    const mine = same && fold(same.name) === fold(one.name) ? fateOf(same) : undefined;
    const twice = planned[index]!.fate === 'refuse' && planned[index]!.why === 'twice';
    const found = mine && !twice ? mine : planned[index]!;
    const to = found.fate === 'invite' ? 'invited to the course' : 'in the course';
    const shown = { file: 'users.csv', line: one.line, what: one.name, from: '', to };
    if (found.fate === 'refuse') {
      lines.push({ ...shown, fate: 'refused', why: WHY[found.why] });
      continue;
    }
    students.push({ incoming: one, person: found.fate === 'add' ? null : found.person, fate: found.fate });
    lines.push({ ...shown, fate: found.fate === 'known' ? 'unchanged' : 'new' });
  }
  return { lines, students };
}

const numberAndMail = (known: Known | undefined): { number: string; mail: string } | undefined =>
  known && { number: known.number, mail: known.mail };

function planItems(incoming: IncomingClass, { columns }: Own): { lines: ShownLine[]; items: OneRosterPlan['items'] } {
  const lines: ShownLine[] = [];
  const items: OneRosterPlan['items'] = [];
  const taken = new Set<string>();
  for (const one of incoming.items) {
    const found =
      columns.find(({ id }) => id === one.id) ?? columns.find(({ title }) => fold(title) === fold(one.title));
    const to = one.possible === null ? 'an assignment' : `an assignment out of ${formatHundredths(one.possible)}`;
    const shown = { file: 'lineItems.csv', line: one.line, what: one.title, from: '', to };
    const key = found?.id ?? fold(one.title);
    if (one.title.length > LONGEST_TITLE) lines.push({ ...shown, fate: 'refused', why: 'The title is too long.' });
    else if (taken.has(key)) lines.push({ ...shown, fate: 'refused', why: 'Another line item is called the same.' });
    else if (found && found.possible !== null && one.possible !== null && found.possible !== one.possible)
      lines.push({
        ...{ ...shown, fate: 'refused' },
        why: `Here it is out of ${formatHundredths(found.possible)}. Change that first, so that no grade is misread.`,
      });
    else {
      taken.add(key);
      items.push({ incoming: one, assignment: found?.id ?? null });
      lines.push({ ...shown, fate: found ? 'unchanged' : 'new' });
    }
  }
  return { lines, items };
}

function planResults(
  incoming: IncomingClass,
  { columns, cellOf }: Own,
  { students, items }: Pick<OneRosterPlan, 'students' | 'items'>,
): { lines: ShownLine[]; cells: OneRosterPlan['cells'] } {
  const lines: ShownLine[] = [];
  const cells: OneRosterPlan['cells'] = [];
  const [studentOf, itemOf] = [
    new Map(students.map((one) => [one.incoming.id, one])),
    new Map(items.map((one) => [one.incoming.id, one])),
  ];
  const met = new Set<string>();
  for (const { line, student, item, score, flag } of incoming.results) {
    const [who, what] = [studentOf.get(student), itemOf.get(item)];
    const names = [
      who?.incoming.name ?? incoming.students.find(({ id }) => id === student)!.name,
      what?.incoming.title ?? incoming.items.find(({ id }) => id === item)!.title,
    ];
    const shown = { file: 'results.csv', line, what: names.join(', ') };
    const refuse = (why: string, from = ''): void =>
      void lines.push({ ...shown, from, to: flag ?? score, fate: 'refused', why });
    if (!who || !what) {
      refuse(who ? 'Its assignment is not taken.' : 'Its student is not taken.');
      continue;
    }
    if (who.fate === 'invite') {
      refuse('Its student is only invited to the course. Import the file again when they have accepted.');
      continue;
    }
    if (met.has(`${student} ${item}`)) {
      refuse('There is a result of this student in this assignment already.');
      continue;
    }
    met.add(`${student} ${item}`);
    const possible = what.incoming.possible ?? columns.find(({ id }) => id === what.assignment)?.possible ?? null;
    const now: OwnCell =
      who.person !== null && what.assignment !== null
        ? cellOf(who.person, what.assignment)
        : { points: null, flag: null, locked: undefined };
    const from = wordsOf(now);
    const entry = flag !== null ? { flag } : readEntry(score, possible);
    if ('problem' in entry) {
      refuse(entry.problem, from);
      continue;
    }
    // No score changes nothing, as an empty cell of a table does.
    if ('points' in entry && entry.points === null) continue;
    if ('flag' in entry && flag === null) {
      refuse(`“${score}” is no number of points.`, from);
      continue;
    }
    const to = 'flag' in entry ? { flag: entry.flag } : { points: entry.points, ...(now.flag && { flag: null }) };
    const words = wordsOf({ points: null, flag: null, ...to });
    if (words === from) {
      lines.push({ ...shown, from, to: words, fate: 'unchanged' });
      continue;
    }
    if (now.locked !== undefined && keepsOut(now.locked, to)) {
      refuse(now.locked, from);
      continue;
    }
    if ('points' in to && possible === null) {
      refuse('Nobody has said what this assignment is out of.', from);
      continue;
    }
    lines.push({ ...shown, from, to: words, fate: from === '' ? 'new' : 'changed' });
    cells.push({ student, item, to });
  }
  return { lines, cells };
}

const wordsOf = ({ points, flag }: Pick<OwnCell, 'points' | 'flag'>): string =>
  flag ?? (points === null ? '' : formatHundredths(points));
