import Papa from 'papaparse';
import { formatHundredths, type Flag, type Hundredths } from '../grading/index.ts';
import { dayOf } from '../workflow/index.ts';
import { ABSENT, COLUMNS, type FileName } from './files.ts';

export interface OutgoingPerson {
  id: string;
  name: string;
  login: string;
  /** Empty where nobody said. */
  mail: string;
  number: string;
  teaches: boolean;
}

export interface OutgoingItem {
  id: string;
  title: string;
  /** ISO 8601; null for whenever one likes. */
  dueAt: string | null;
  category: string;
  term: string | null;
  /** Null where nobody has said what it is out of. */
  possible: Hundredths | null;
}

export interface OutgoingResult {
  item: string;
  student: string;
  /** A work was handed in. */
  submitted: boolean;
  /** ISO 8601; null where nobody knows when it was given. */
  givenAt: string | null;
  points: Hundredths | null;
  grade: string | null;
  flag: Flag | null;
  late: boolean;
  /** Its student sees it. */
  returned: boolean;
}

/** A course with all that others may want to know of it. */
export interface Outgoing {
  /** When it is written, in ISO 8601. */
  now: string;
  /** The zone of the school's days, as in the IANA database. */
  zone: string;
  school: { id: string; name: string };
  course: { id: string; title: string };
  terms: readonly string[];
  people: readonly OutgoingPerson[];
  items: readonly OutgoingItem[];
  results: readonly OutgoingResult[];
}

type Line<File extends FileName> = Partial<Record<(typeof COLUMNS)[File][number], string | boolean>>;

/**
 * The files of a course, whole (the standard calls it bulk), by their names. Of an assignment nobody can get points in the standard has
 * no way to tell, so it is left out. A cell that begins like a formula is none.
 */
export function writeOneRoster(out: Outgoing): Map<string, string> {
  const { course, school, zone, terms, people, results } = out;
  const items = out.items.filter(hasPoints);
  const today = dayOf(out.now, zone);
  const dates = items.flatMap(({ dueAt }) => (dueAt === null ? [] : dayOf(dueAt, zone))).concat(today);
  const span = { startDate: least(dates), endDate: greatest(dates), schoolYear: greatest(dates).slice(0, 4) };
  const [year, term, whole] = [`${course.id}-year`, `${course.id}-term`, `${course.id}-period`];
  const periodOf = (title: string | null): string => {
    const at = title === null ? -1 : terms.indexOf(title);
    return at < 0 ? whole : `${course.id}-period-${at + 1}`;
  };
  const categories = [...new Set(items.map(({ category }) => category))];
  const categoryOf = (category: string): string => `${course.id}-category-${categories.indexOf(category) + 1}`;
  const inItems = new Set(items.map(({ id }) => id));

  const files: { [File in FileName]: Line<File>[] } = {
    orgs: [{ sourcedId: school.id, name: school.name, type: 'school' }],
    academicSessions: [
      { sourcedId: year, title: span.schoolYear, type: 'schoolYear', ...span },
      { sourcedId: term, title: course.title, type: 'term', parentSourcedId: year, ...span },
      ...[null, ...terms].map((title) => ({
        ...{ sourcedId: periodOf(title), title: title ?? course.title, type: 'gradingPeriod', parentSourcedId: term },
        ...span,
      })),
    ],
    courses: [
      { sourcedId: `${course.id}-course`, title: course.title, schoolYearSourcedId: year, orgSourcedId: school.id },
    ],
    classes: [
      {
        ...{
          sourcedId: course.id,
          title: course.title,
          courseSourcedId: `${course.id}-course`,
          classType: 'scheduled',
        },
        ...{ schoolSourcedId: school.id, termSourcedIds: term },
      },
    ],
    users: people.map(({ id, name, login, mail, number }) => ({
      ...{ sourcedId: id, enabledUser: true, username: login, ...partsOf(name), identifier: number, email: mail },
      primaryOrgSourcedId: school.id,
    })),
    roles: people.map(({ id, teaches }) => ({
      ...{ sourcedId: `${id}-role`, userSourcedId: id, roleType: 'primary', role: roleOf(teaches) },
      orgSourcedId: school.id,
    })),
    enrollments: people.map(({ id, teaches }) => ({
      ...{ sourcedId: `${course.id}-${id}`, classSourcedId: course.id, schoolSourcedId: school.id, userSourcedId: id },
      ...{ role: roleOf(teaches), primary: false },
    })),
    categories: categories.map((title) => ({ sourcedId: categoryOf(title), title: title || 'Assignments' })),
    lineItems: items.map(({ id, title, dueAt, category, term, possible }) => ({
      ...{ sourcedId: id, title, assignDate: span.startDate },
      dueDate: dueAt === null ? span.endDate : dayOf(dueAt, zone),
      ...{ classSourcedId: course.id, categorySourcedId: categoryOf(category), schoolSourcedId: school.id },
      gradingPeriodSourcedId: periodOf(term),
      ...{ resultValueMin: '0', resultValueMax: formatHundredths(possible) },
    })),
    results: results
      .filter(({ item }) => inItems.has(item))
      .map((result) => ({
        ...{ sourcedId: `${result.item}-${result.student}`, lineItemSourcedId: result.item },
        ...{ studentSourcedId: result.student, scoreStatus: statusOf(result) },
        scoreDate: dayOf(result.givenAt ?? out.now, zone),
        ...{ score: result.points === null ? '' : formatHundredths(result.points), textScore: result.grade ?? '' },
        ...{ classSourcedId: course.id, inProgress: result.points !== null && !result.returned },
        ...{ incomplete: result.flag === 'incomplete', late: result.late, missing: result.flag === 'missing' },
      })),
  };
  const named = Object.entries(files).map(([name, lines]) => [`${name}.csv`, csvOf(COLUMNS[name as FileName], lines)]);
  return new Map([['manifest.csv', manifest()], ...(named as [string, string][])]);
}

function manifest(): string {
  const present = Object.keys(COLUMNS).map((name) => [`file.${name}`, 'bulk']);
  const absent = ABSENT.map((name) => [`file.${name}`, 'absent']);
  const lines = [
    ...[
      ['propertyName', 'value'],
      ['manifest.version', '1.0'],
      ['oneroster.version', '1.2'],
    ],
    ...[...present, ...absent].toSorted(([a], [b]) => (a! < b! ? -1 : 1)),
    ...[
      ['source.systemName', 'Vivid Margin'],
      ['source.systemCode', 'vivid-margin'],
    ],
  ];
  return Papa.unparse(lines, { newline: '\r\n' }) + '\r\n';
}

/** What a spreadsheet would compute; a number with its sign is none. */
const FORMULA = /^[=@\t\r]|^[+-](?!\d+(?:\.\d+)?$)/u;

const csvOf = (columns: readonly string[], lines: readonly Record<string, unknown>[]): string =>
  Papa.unparse([columns, ...lines.map((line) => columns.map((column) => line[column] ?? ''))], {
    ...{ newline: '\r\n', escapeFormulae: FORMULA },
  }) + '\r\n';

const least = (dates: readonly string[]): string => dates.reduce((a, b) => (a < b ? a : b));
const greatest = (dates: readonly string[]): string => dates.reduce((a, b) => (a > b ? a : b));
const roleOf = (teaches: boolean): string => (teaches ? 'teacher' : 'student');

/** The standard wants two parts; who has one name has it twice. */
function partsOf(name: string): { givenName: string; familyName: string } {
  const at = name.lastIndexOf(' ');
  return at < 0
    ? { givenName: name, familyName: name }
    : { givenName: name.slice(0, at), familyName: name.slice(at + 1) };
}

/** The five words of the standard for it; what has not been returned can still change. */
function statusOf({ points, flag, returned, submitted }: OutgoingResult): string {
  if (flag === 'excused') return 'exempt';
  if (flag === 'missing') return 'not submitted';
  if (points === null) return submitted ? 'submitted' : 'not submitted';
  return returned ? 'fully graded' : 'partially graded';
}

const hasPoints = (item: OutgoingItem): item is OutgoingItem & { possible: Hundredths } => item.possible !== null;
