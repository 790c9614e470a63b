import Papa from 'papaparse';
import { parseHundredths, type Flag, type Hundredths } from '../grading/index.ts';
import { VERSIONS, type FileName } from './files.ts';

/** Why a line is not taken, as a sentence. */
export interface RefusedLine {
  file: string;
  /** Counted from 1, with the line of the heads. */
  line: number;
  what: string;
  why: string;
}

export interface IncomingStudent {
  id: string;
  line: number;
  name: string;
  /** Empty where the file has none. */
  mail: string;
  number: string;
}

export interface IncomingItem {
  id: string;
  line: number;
  title: string;
  /** `2026-10-05`, or null. */
  due: string | null;
  /** Empty where there is none. */
  category: string;
  possible: Hundredths | null;
}

export interface IncomingResult {
  line: number;
  student: string;
  item: string;
  /** As it is written; read by what the assignment is out of. */
  score: string;
  flag: Flag | null;
}

export interface IncomingClass {
  id: string;
  title: string;
  students: IncomingStudent[];
  /** How many teach it; they are invited, not brought in. */
  teachers: number;
  items: IncomingItem[];
  results: IncomingResult[];
  refused: RefusedLine[];
}

/** What a file has to say, or why it cannot be taken, as a sentence. */
export type Incoming = { classes: IncomingClass[] } | { problem: string };

interface Row {
  line: number;
  of: (column: string) => string;
}
interface Table {
  rows: Row[];
  refused: RefusedLine[];
}

/** What cannot be done without, by file. */
const NEEDED = {
  users: ['sourcedId', 'givenName', 'familyName'],
  classes: ['sourcedId', 'title'],
  enrollments: ['sourcedId', 'classSourcedId', 'userSourcedId', 'role'],
  categories: ['sourcedId', 'title'],
  lineItems: ['sourcedId', 'title', 'classSourcedId'],
  results: ['sourcedId', 'lineItemSourcedId', 'studentSourcedId', 'score'],
} as const satisfies Partial<Record<FileName, readonly string[]>>;
type Read = keyof typeof NEEDED;
const MUST_BE = ['users', 'classes', 'enrollments'] as const;

/**
 * Reads the files of a OneRoster package (1.1 or 1.2), of which lines that are wrong are refused and the others taken.
 * @param files the texts by their names in the package
 */
export function readOneRoster(files: ReadonlyMap<string, string>): Incoming {
  const manifest = files.get('manifest.csv');
  if (manifest === undefined)
    return { problem: 'There is no manifest.csv in this file. Choose the whole .zip file of a OneRoster export.' };
  const properties = new Map(
    Papa.parse<string[]>(manifest.trim()).data.map(([name = '', value = '']) => [name, value]),
  );
  const version = properties.get('oneroster.version')?.trim() ?? '';
  if (!VERSIONS.includes(version))
    return { problem: `This file says it is OneRoster “${version}”. Files of 1.1 and 1.2 can be read.` };
  const isThere = (name: Read): boolean => files.has(`${name}.csv`) && properties.get(`file.${name}`) !== 'absent';
  const missing = MUST_BE.filter((name) => !isThere(name));
  if (missing.length > 0)
    return { problem: `${missing.map((name) => `${name}.csv`).join(', ')} is missing in this file.` };

  const tables = {} as Record<Read, Table>;
  for (const name of Object.keys(NEEDED) as Read[]) {
    const read = tableOf(name, isThere(name) ? files.get(`${name}.csv`)! : NEEDED[name].join(','));
    if ('problem' in read) return read;
    tables[name] = read;
  }
  const users = byId(tables.users);
  const categories = byId(tables.categories);
  const classes = tables.classes.rows.map((row) => classOf(row, tables, users, categories));
  return classes.length === 0 ? { problem: 'There is no class in this file.' } : { classes };
}

function tableOf(name: Read, text: string): Table | { problem: string } {
  const { data } = Papa.parse<string[]>(text.replace(/^\ufeff/u, ''), { delimiter: ',' });
  const heads = (data[0] ?? []).map((head) => head.trim());
  const lacks = NEEDED[name].filter((column) => !heads.includes(column));
  if (lacks.length > 0) return { problem: `${name}.csv lacks the column ${lacks.join(', ')}.` };
  const at = new Map(heads.map((head, index) => [head, index]));
  const table: Table = { rows: [], refused: [] };
  const seen = new Set<string>();
  for (const [index, cells] of data.entries()) {
    if (index === 0 || cells.every((cell) => cell.trim() === '')) continue;
    const row: Row = { line: index + 1, of: (column) => plain(cells[at.get(column) ?? -1]) };
    const why = wrongWith(row, NEEDED[name], seen);
    seen.add(row.of('sourcedId'));
    if (why === undefined) table.rows.push(row);
    else table.refused.push({ file: `${name}.csv`, line: row.line, what: row.of('title') || nameOf(row), why });
  }
  return table;
}

/** What was made safe against being taken for a formula is as it was. */
const plain = (cell = ''): string => cell.trim().replace(/^'(?=[=+\-@])/u, '');

const OPTIONAL = ['score', 'familyName', 'givenName'];

function wrongWith(row: Row, needed: readonly string[], seen: ReadonlySet<string>): string | undefined {
  const empty = needed.filter((column) => !OPTIONAL.includes(column) && row.of(column) === '');
  if (empty.length > 0) return `${empty.join(', ')} is empty.`;
  if (seen.has(row.of('sourcedId'))) return `Its sourcedId “${row.of('sourcedId')}” is there twice.`;
  if (row.of('status').toLowerCase() === 'tobedeleted')
    return 'It is marked for deletion. Nothing is deleted from here.';
  return undefined;
}

const byId = ({ rows }: Table): Map<string, Row> => new Map(rows.map((row) => [row.of('sourcedId'), row]));

function nameOf(row: Row): string {
  const [given, family] = [
    row.of('preferredGivenName') || row.of('givenName'),
    row.of('preferredFamilyName') || row.of('familyName'),
  ];
  return given === family ? given : `${given} ${family}`.trim();
}

function classOf(
  row: Row,
  { users, enrollments, lineItems, results }: Record<Read, Table>,
  userOf: ReadonlyMap<string, Row>,
  categoryOf: ReadonlyMap<string, Row>,
): IncomingClass {
  const id = row.of('sourcedId');
  const refused = [users, enrollments, lineItems, results].flatMap((table) => table.refused);
  const refuse = (file: string, line: number, what: string, why: string): [] => {
    refused.push({ file, line, what, why });
    return [];
  };
  const own = enrollments.rows.filter((one) => one.of('classSourcedId') === id);
  const students = own.flatMap((one): IncomingStudent[] => {
    if (one.of('role').toLowerCase() !== 'student') return [];
    const user = userOf.get(one.of('userSourcedId'));
    if (!user)
      return refuse('enrollments.csv', one.line, one.of('userSourcedId'), 'There is no such user in users.csv.');
    const name = nameOf(user);
    if (name === '') return refuse('users.csv', user.line, user.of('sourcedId'), 'There is no name.');
    return [{ id: user.of('sourcedId'), line: user.line, name, mail: user.of('email'), number: user.of('identifier') }];
  });
  const items = lineItems.rows.flatMap((one): IncomingItem[] => {
    if (one.of('classSourcedId') !== id) return [];
    const most = one.of('resultValueMax');
    const possible = most === '' ? null : parseHundredths(most);
    if (possible === undefined || (possible !== null && possible <= 0))
      return refuse('lineItems.csv', one.line, one.of('title'), `“${most}” is no number of points above 0.`);
    const due = one.of('dueDate').slice(0, 10);
    const category = categoryOf.get(one.of('categorySourcedId'))?.of('title') ?? '';
    return [
      {
        ...{ id: one.of('sourcedId'), line: one.line, title: one.of('title'), possible, category },
        due: isDate(due) ? due : null,
      },
    ];
  });
  const [inItems, inStudents] = [new Set(items.map((one) => one.id)), new Set(students.map((one) => one.id))];
  const given = results.rows.flatMap((one): IncomingResult[] => {
    const [item, student] = [one.of('lineItemSourcedId'), one.of('studentSourcedId')];
    if (!inItems.has(item)) {
      const elsewhere = lineItems.rows.some((other) => other.of('sourcedId') === item);
      return elsewhere ? [] : refuse('results.csv', one.line, item, 'There is no such line item in lineItems.csv.');
    }
    if (!inStudents.has(student))
      return refuse('results.csv', one.line, student, 'There is no such student in this class.');
    return [{ line: one.line, student, item, score: one.of('score'), flag: flagOf(one) }];
  });
  const teachers = own.filter((one) => one.of('role').toLowerCase() === 'teacher').length;
  return { id, title: row.of('title'), students, teachers, items, results: given, refused };
}

const isDate = (text: string): boolean =>
  /^\d{4}-\d{2}-\d{2}$/u.test(text) && !Number.isNaN(Date.parse(text)) && new Date(text).toISOString().startsWith(text);

function flagOf(row: Row): Flag | null {
  const is = (column: string): boolean => row.of(column).toLowerCase() === 'true';
  if (row.of('scoreStatus').toLowerCase() === 'exempt') return 'excused';
  if (is('missing')) return 'missing';
  return is('incomplete') ? 'incomplete' : null;
}
