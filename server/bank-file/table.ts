import Papa from 'papaparse';
import type { BankedRemark } from '../../contract/bank.ts';
import { selectBanked, selectOwnIds } from '../bank/queries.ts';
import type { Queries } from '../db/database.ts';

/** The columns of the table, in their order. */
export const COLUMNS = [
  'name',
  'text',
  'description',
  'kind',
  'criterion',
  'tags',
  'language',
  'link',
  'suggestion',
] as const;
const BYTE_ORDER_MARK = '\ufeff';
const PIECE = 200;
/** Between tags: a comma parts columns, and may stand in a tag. */
const BETWEEN = '; ';

/** What a bank says in writing as a table (RFC 4180), for any spreadsheet; of what is spoken, its words. */
export async function* exportTable(db: Queries, person: string): AsyncGenerator<string> {
  const ids = await selectOwnIds(db, person);
  yield BYTE_ORDER_MARK + csv([[...COLUMNS]]);
  for (let at = 0; at < ids.length; at += PIECE)
    yield csv((await selectBanked(db, person, ids.slice(at, at + PIECE))).map(rowOf));
}

function rowOf(remark: BankedRemark): string[] {
  const text = [remark.text, remark.recording?.transcript?.text].filter(Boolean).join('\n');
  const { name, description, kind, criterion, tags, language, link, suggestion } = remark;
  return [name, text, description, kind, criterion, tags.join(BETWEEN), language, link ?? '', suggestion ?? ''];
}

/** A cell that begins like a formula is no formula. */
const csv = (rows: readonly (readonly string[])[]): string =>
  `${Papa.unparse(rows as string[][], { escapeFormulae: true, newline: '\r\n' })}\r\n`;

/** The rows of a table by their columns, whatever the order of these; undefined where it has no column of names or texts. */
export function readTable(text: string): Record<string, string>[] | undefined {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\ufeff/u, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (header) => header.trim().toLowerCase(),
  });
  if (!meta.fields?.includes('text')) return undefined;
  return data.map((row) => Object.fromEntries(Object.entries(row).map(([name, value]) => [name, unescaped(value)])));
}

const unescaped = (value: unknown): string =>
  typeof value === 'string' ? value.replace(/^'(?=[=+\-@\t\r])/u, '') : '';

export const tagsOf = (cell: string): string[] =>
  cell
    .split(/[;\n]/u)
    .map((tag) => tag.trim().slice(0, 40))
    .filter((tag) => tag !== '');
