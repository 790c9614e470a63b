/** The name of a column of a table, counted from 0: A, B … Z, AA. */
export function columnName(index: number): string {
  let name = '';
  for (let left = index; left >= 0; left = Math.floor(left / 26) - 1)
    name = String.fromCharCode(65 + (left % 26)) + name;
  return name;
}

/** The number of a column, counted from 0, by its name. */
export const columnIndex = (name: string): number =>
  [...name.toUpperCase()].reduce((sum, letter) => 26 * sum + letter.charCodeAt(0) - 64, 0) - 1;
