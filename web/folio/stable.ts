/**
 * A list that was computed anew, with every element that is the same as before in its old identity; the old list itself where
 * nothing has changed. What is drawn from it is then not drawn again.
 */
export function stable<T>(
  before: readonly T[] | undefined,
  now: readonly T[],
  same: (a: T, b: T) => boolean,
): readonly T[] {
  if (!before) return now;
  // Most often one has come or gone, and the others follow each other as before.
  let next = 0;
  const kept = now.map((item) => {
    const expected = before[next];
    const found = expected !== undefined && same(expected, item) ? next : before.findIndex((old) => same(old, item));
    if (found < 0) return item;
    next = found + 1;
    return before[found]!;
  });
  return kept.length === before.length && kept.every((item, index) => item === before[index]) ? before : kept;
}

/** Whether two values have the same properties, one by one. */
export function shallowSame<T extends object>(a: T, b: T): boolean {
  const names = Object.keys(a) as (keyof T)[];
  return names.length === Object.keys(b).length && names.every((name) => a[name] === b[name]);
}
