import { withoutEnds } from '../text/index.ts';
import { max } from 'd3-array';
import Papa from 'papaparse';

/** One student as a list has them. */
export interface Listed {
  name: string;
  /** Empty where the list has none. */
  mail: string;
  /** What a school knows the student by; empty where the list has none. */
  number: string;
}

export interface RosterLine extends Listed {
  /** Counted from 1, in what was pasted. */
  line: number;
}

export interface ReadRoster {
  lines: RosterLine[];
  /** Names came as two parts, and which of them is said first could be the other way round. */
  twoParts: boolean;
}

type Role = 'name' | 'given' | 'family' | 'mail' | 'number' | 'other';

/** What columns are called, in the languages that lists came in so far; from memory. */
const HEADINGS: [RegExp, Role][] = [
  [/^(first|given|fore) ?names?$|^(vorname|prénom|nombre de pila|nome próprio)s?$/u, 'given'],
  [/^(last|family|sur) ?names?$|^(nachname|familienname|nom de famille|apellidos?|sobrenome|cognome)$/u, 'family'],
  [/^(full |student |display )?names?$|^(student|learner|pupil|nom|nombre|nome)s?$/u, 'name'],
  [/^e?-?mail( ?address)?$|^(correo|courriel)$/u, 'mail'],
  [/^(student |matriculation |candidate )?(number|no\.?|id|nr\.?)$|^(matrikelnummer|número|numéro|nummer)$/u, 'number'],
];
const MAIL = /^[^\s@<>]+@[^\s@<>.]+(?:\.[^\s@<>.]+)+$/u;
/** An address beside a name, as mail programs write it (RFC 5322, 3.4), or with a mark between. */
const PARTS = /[^\s<>;,|]+/gu;
const BETWEEN = /[\s<>;,|]/u;
function addressBeside(name: string): { name: string; mail: string } | undefined {
  for (const { 0: part, index } of name.matchAll(PARTS)) {
    if (!part.includes('@') || !isMail(part)) continue;
    const [before, after] = [name.slice(0, index), name.slice(index + part.length)];
    const rest = [withoutEnds(before, BETWEEN, 'end'), withoutEnds(after, BETWEEN, 'start')];
    return { name: rest.filter(Boolean).join(' '), mail: part };
  }
  return undefined;
}
const NUMBER = /^(?=.*\d)[\p{L}\d./_-]{1,40}$/u;
const DELIMITERS = ['\t', ';', ',', '|'];

/** Whether a mail address is one that can be written to. */
export const isMail = (text: string): boolean => MAIL.test(text);

/**
 * Reads a class list as people paste it: one name a line, or columns between tabs, semicolons, commas or bars, with a heading or
 * without; an address may also stand beside the name. What stands between commas only and is two names is taken for "Family, Given".
 * @param turned the two parts of a name are the other way round than they are taken for
 */
export function readRoster(text: string, turned = false): ReadRoster {
  const delimiter = delimiterOf(text);
  const { data } = Papa.parse<string[]>(text, { delimiter });
  const rows = data
    .map((cells, index) => ({ line: index + 1, cells: cells.map((cell) => cell.replace(/\s+/gu, ' ').trim()) }))
    .filter(({ cells }) => cells.some((cell) => cell !== ''));
  const heading = rows[0]?.cells.map(roleOfHeading) ?? [];
  const hasHeading = heading.some((role) => role !== 'other') && !rows[0]!.cells.some((cell) => cell.includes('@'));
  const body = hasHeading ? rows.slice(1) : rows;
  const roles = hasHeading
    ? heading
    : guessedRoles(
        body.map(({ cells }) => cells),
        delimiter,
      );
  const lines = body.map(({ line, cells }) => ({ line, ...listedIn(cells, roles, turned) }));
  return { lines, twoParts: roles.includes('given') && roles.includes('family') };
}

/** The one that most lines have equally often. */
function delimiterOf(text: string): string {
  const lines = text.split(/\r?\n/u).filter((line) => line.trim() !== '');
  const shares = DELIMITERS.map((delimiter) => ({
    delimiter,
    share: lines.filter((line) => line.includes(delimiter)).length / Math.max(1, lines.length),
  }));
  return shares.find(({ share }) => share > 0.5)?.delimiter ?? '\t';
}

const roleOfHeading = (cell: string): Role =>
  HEADINGS.find(([pattern]) => pattern.test(cell.toLowerCase()))?.[1] ?? 'other';

/** What most cells of a column look like. */
function guessedRoles(rows: readonly (readonly string[])[], delimiter: string): Role[] {
  const width = max(rows, (cells) => cells.length) ?? 0;
  const roles = Array.from({ length: width }, (_, column): Role => {
    const cells = rows.map((row) => row[column] ?? '').filter((cell) => cell !== '');
    const most = (looks: (cell: string) => boolean): boolean => cells.filter(looks).length * 2 > cells.length;
    if (most((cell) => cell.includes('@') && !cell.includes(' '))) return 'mail';
    return most((cell) => NUMBER.test(cell)) ? 'number' : 'name';
  });
  const names = roles.flatMap((role, column) => (role === 'name' ? [column] : []));
  if (names.length === 2) {
    const [first, second] = names as [number, number];
    roles[first] = delimiter === ',' ? 'family' : 'given';
    roles[second] = delimiter === ',' ? 'given' : 'family';
  }
  return roles;
}

function listedIn(cells: readonly string[], roles: readonly Role[], turned: boolean): Listed {
  const of = (role: Role): string =>
    cells
      .filter((_, column) => roles[column] === role)
      .join(' ')
      .trim();
  const [before, after] = turned ? [of('family'), of('given')] : [of('given'), of('family')];
  const listed = {
    name: [of('name'), before, after].filter(Boolean).join(' '),
    mail: of('mail'),
    number: of('number'),
  };
  const beside = listed.mail === '' ? addressBeside(listed.name) : undefined;
  return { ...listed, ...beside };
}
