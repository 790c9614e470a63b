/** The same words in two texts, one after the other: `length` of them from `old` and from `next`. */
export interface Block {
  old: number;
  next: number;
  length: number;
}

/** The largest table that is worth filling; larger gaps are cut at words that stand only once on both sides. */
const MAX_CELLS = 20_000;

/**
 * Pairs equal words in order so that the weight of the pairs is the greatest: a heaviest common subsequence (Wagner & Fischer
 * 1974), cut into smaller ones at words that are unique on both sides where it would be large (Cohen's patience diff).
 * @param here indices of words of the old text, ascending
 * @param there indices of words of the new text, ascending
 * @returns pairs of an old and a new index, ascending in both
 */
export function alignWords(
  here: readonly number[],
  there: readonly number[],
  oldIds: Int32Array,
  nextIds: Int32Array,
  weight: Float32Array,
): [number, number][] {
  let [low, high] = [0, 0];
  const shorter = Math.min(here.length, there.length);
  while (low < shorter && oldIds[here[low]!] === nextIds[there[low]!]) low++;
  while (high < shorter - low && oldIds[here.at(-1 - high)!] === nextIds[there.at(-1 - high)!]) high++;
  const pairs: [number, number][] = [];
  for (let i = 0; i < low; i++) pairs.push([here[i]!, there[i]!]);
  const inner = here.slice(low, here.length - high);
  const outer = there.slice(low, there.length - high);
  if (inner.length > 0 && outer.length > 0)
    for (const pair of inner.length * outer.length <= MAX_CELLS ? heaviest(inner, outer) : cut(inner, outer))
      pairs.push(pair);
  for (let i = high; i > 0; i--) pairs.push([here.at(-i)!, there.at(-i)!]);
  return pairs;

  function heaviest(rows: number[], columns: number[]): [number, number][] {
    const width = columns.length + 1;
    const best = new Float32Array((rows.length + 1) * width);
    for (let i = rows.length - 1; i >= 0; i--)
      for (let j = columns.length - 1; j >= 0; j--) {
        const skip = Math.max(best[(i + 1) * width + j]!, best[i * width + j + 1]!);
        const same = oldIds[rows[i]!] === nextIds[columns[j]!];
        const take = same ? best[(i + 1) * width + j + 1]! + weight[rows[i]!]! + neighbour(rows, columns, i, j) : 0;
        best[i * width + j] = Math.max(skip, take);
      }
    const found: [number, number][] = [];
    for (let i = 0, j = 0; i < rows.length && j < columns.length;) {
      const here = best[i * width + j]!;
      if (here === best[(i + 1) * width + j]!) i++;
      else if (here === best[i * width + j + 1]!) j++;
      else found.push([rows[i++]!, columns[j++]!]);
    }
    return found;
  }

  /** Of two ways that weigh the same, the one that keeps neighbours together. */
  function neighbour(rows: number[], columns: number[], i: number, j: number): number {
    const next = i + 1 < rows.length && j + 1 < columns.length;
    return next && oldIds[rows[i + 1]!] === nextIds[columns[j + 1]!] ? 0.5 : 0;
  }

  function cut(rows: number[], columns: number[]): [number, number][] {
    const once = (indices: number[], ids: Int32Array): Map<number, number> => {
      const places = new Map<number, number>();
      indices.forEach((index, place) => places.set(ids[index]!, places.has(ids[index]!) ? -1 : place));
      return places;
    };
    const there = once(columns, nextIds);
    const unique = [...once(rows, oldIds)]
      .map(([id, row]) => ({ row, column: there.get(id) ?? -1 }))
      .filter(({ row, column }) => row >= 0 && column >= 0);
    const steps = increasing(unique.map(({ column }) => column)).map((index) => unique[index]!);
    if (steps.length === 0) return [];
    const found: [number, number][] = [];
    let from = { row: 0, column: 0 };
    for (const step of [...steps, { row: rows.length, column: columns.length }]) {
      found.push(
        ...alignWords(rows.slice(from.row, step.row), columns.slice(from.column, step.column), oldIds, nextIds, weight),
      );
      if (step.row < rows.length) found.push([rows[step.row]!, columns[step.column]!]);
      from = { row: step.row + 1, column: step.column + 1 };
    }
    return found;
  }
}

/** The indices of the longest run of values that ascend, by patience sorting (Fredman 1975). */
export function increasing(values: readonly number[]): number[] {
  const piles: number[] = [];
  const before = new Int32Array(values.length).fill(-1);
  values.forEach((value, index) => {
    let low = 0;
    for (let high = piles.length; low < high;) {
      const middle = (low + high) >> 1;
      if (values[piles[middle]!]! < value) low = middle + 1;
      else high = middle;
    }
    if (low > 0) before[index] = piles[low - 1]!;
    piles[low] = index;
  });
  const found: number[] = [];
  for (let at = piles.at(-1) ?? -1; at >= 0; at = before[at]!) found.push(at);
  return found.reverse();
}
