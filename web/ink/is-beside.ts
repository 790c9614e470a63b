import { areBeside, type Stroke } from '#core/ink';

const known = new WeakMap<readonly Stroke[], boolean>();

/** Whether ink stands on the free paper beside its leaf; each is looked at once. */
export function isBeside(ink: readonly Stroke[]): boolean {
  const before = known.get(ink);
  if (before !== undefined) return before;
  const now = areBeside(ink);
  known.set(ink, now);
  return now;
}
