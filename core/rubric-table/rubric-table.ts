import { withoutEnds } from '../text/index.ts';
import Papa from 'papaparse';
import { formatHundredths, parseHundredths, type Hundredths } from '#core/grading';

/** A rubric as it travels: without the identity that it has in one assignment. */
export interface PlainLevel {
  title: string;
  description: string;
  points: Hundredths;
}
export interface PlainCriterion {
  title: string;
  description: string;
  levels: PlainLevel[];
  /** Hundredths of a per cent. */
  weight?: Hundredths | undefined;
  bonus?: boolean | undefined;
}

const COLUMNS = ['criterion', 'description', 'level', 'level description', 'points'];
/** Only where a rubric has such. */
const WEIGHTS = ['weight', 'bonus'];

/** A line that cannot be understood, counted from 1. */
export interface TableFault {
  line: number;
  why: 'points' | 'noCriterion' | 'noLevel';
}

export interface ReadTable {
  rubric: PlainCriterion[];
  faults: TableFault[];
}

/** A rubric as CSV (RFC 4180), a row for each level. */
export function rubricCsv(rubric: readonly PlainCriterion[]): string {
  const weighs = rubric.some(({ weight, bonus }) => weight !== undefined || bonus);
  return Papa.unparse({
    fields: weighs ? [...COLUMNS, ...WEIGHTS] : COLUMNS,
    data: rubric.flatMap(({ title, description, levels, weight, bonus }) =>
      levels.map((level) => [
        ...[title, description, level.title, level.description, formatHundredths(level.points)],
        ...(weighs ? [weight === undefined ? '' : formatHundredths(weight), bonus ? 'yes' : ''] : []),
      ]),
    ),
  });
}

/**
 * Reads what `rubricCsv` writes, or a grid as people have them in a spreadsheet: levels as headings of the columns, with their
 * points in brackets, and what each means for each criterion below. In a grid without points the first level has none, and
 * each one more than that before it.
 */
export function readRubricTable(text: string): ReadTable {
  const { data } = Papa.parse<string[]>(withoutEnds(text, /[\r\n]/u), {
    delimitersToGuess: ['\t', ';', ',', '|'],
  });
  const rows = data.map((cells) => cells.map((cell) => cell.trim()));
  const header = rows[0]?.map((cell) => cell.toLowerCase()) ?? [];
  return COLUMNS.every((name) => header.includes(name)) ? readList(rows, header) : readGrid(rows);
}

function readList(rows: readonly string[][], header: readonly string[]): ReadTable {
  const rubric: PlainCriterion[] = [];
  const faults: TableFault[] = [];
  rows.slice(1).forEach((cells, index) => {
    if (cells.every((cell) => cell === '')) return;
    const of = (name: string): string => cells[header.indexOf(name)] ?? '';
    const line = index + 2;
    const points = parseHundredths(of('points'));
    if (of('criterion') === '') return void faults.push({ line, why: 'noCriterion' });
    if (of('level') === '') return void faults.push({ line, why: 'noLevel' });
    if (points === undefined || points < 0) return void faults.push({ line, why: 'points' });
    const level = { title: of('level'), description: of('level description'), points };
    const known = rubric.find(({ title }) => title === of('criterion'));
    if (known) known.levels.push(level);
    else {
      const weight = parseHundredths(of('weight'));
      rubric.push({
        ...{ title: of('criterion'), description: of('description'), levels: [level] },
        ...(weight !== undefined && weight >= 0 && { weight }),
        ...(of('bonus') !== '' && { bonus: true }),
      });
    }
  });
  return { rubric, faults };
}

/** `Strong (10)`, `Strong: 7.5 points` */
function headingOf(cell: string): { title: string; points: string } | undefined {
  const bare = cell.trimEnd().replace(/\)$/u, '').trimEnd();
  const number = bare.replace(/(?:points?|pts?\.?|%)$/iu, '').trimEnd();
  const points = /(?<!\d)\d{1,9}(?:[.,]\d{1,2})?$/u.exec(number)?.[0];
  if (points === undefined) return undefined;
  return { title: withoutEnds(number.slice(0, -points.length), /[\s:(]/u, 'end'), points };
}

function readGrid(rows: readonly string[][]): ReadTable {
  const [heading = [], ...body] = rows;
  const levels = heading.slice(1).map((cell, index) => {
    const { title, points } = headingOf(cell) ?? { title: '', points: '' };
    return title ? { title, points: parseHundredths(points)! } : { title: cell, points: index * 100 };
  });
  const faults: TableFault[] = [];
  const rubric: PlainCriterion[] = [];
  if (levels.length === 0 || levels.some(({ title }) => title === ''))
    return { rubric, faults: [{ line: 1, why: 'noLevel' }] };
  body.forEach(([title = '', ...cells], index) => {
    if ([title, ...cells].every((cell) => cell === '')) return;
    if (title === '') return void faults.push({ line: index + 2, why: 'noCriterion' });
    const described = levels.map((level, column) => ({ ...level, description: cells[column] ?? '' }));
    rubric.push({ title, description: '', levels: described });
  });
  return { rubric, faults };
}
