import { columnIndex, columnName } from './columns.ts';

/** A reference to a cell, whole column or row as it stands in a formula; `$` holds a part of it where it is (ECMA-376 Part 1, 18.17.2.3). */
const REFERENCE = /"[^"]*"|'[^']*'|(?<![\w.$])(\$?)([A-Z]{1,3})(\$?)(\d{1,7})(?![\w(])/gu;

/**
 * A formula as it reads in a cell that shares it: relative references are moved along.
 * @param rows how many rows further down than the cell for which it was written
 */
export const movedFormula = (formula: string, rows: number, columns: number): string =>
  formula.replace(REFERENCE, (all, heldColumn?: string, column?: string, heldRow?: string, row?: string) => {
    if (column === undefined || row === undefined) return all;
    const to = {
      column: heldColumn ? column : columnName(columnIndex(column) + columns),
      row: heldRow ? Number(row) : Number(row) + rows,
    };
    return to.column === '' || to.row < 1 ? '#REF!' : `${heldColumn}${to.column}${heldRow}${to.row}`;
  });

/** A formula of OpenDocument (OpenFormula, part 4, section 5.8) as people write it: `of:=SUM([.A1:.A3])` is `=SUM(A1:A3)`. */
export const plainFormula = (formula: string): string =>
  formula
    .replace(/^[a-z]+:(?==)/u, '')
    .replace(/'file:[^']*'#\$?/gu, 'other file ')
    .replace(/\[([^\][]*)\]/gu, (_, references: string) => references.split(':').map(plainReference).join(':'));

/** `.A1` is A1 on the same sheet, `$Tides.A1` is A1 on another. */
function plainReference(reference: string): string {
  const dot = reference.lastIndexOf('.');
  const sheet = reference.slice(0, Math.max(0, dot)).replace(/^\$/u, '');
  return `${sheet === '' ? '' : `${sheet}!`}${reference.slice(dot + 1)}`;
}
