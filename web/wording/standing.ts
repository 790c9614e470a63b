import type { Flag } from '#core/grading';
import { dayAndTime } from './format.ts';

/** What a flag does, for whoever sets it; its name is the flag itself. */
export const FLAGS: Record<Flag, string> = {
  missing: 'missing: counts as 0',
  incomplete: 'incomplete: held back until the rest is there',
  excused: 'excused: left out',
};

/** All that a teacher decided, and that it came late, as short words beside a result. */
export const standingWords = (
  { flag, extendedUntil }: { flag: Flag | null; extendedUntil: string | null },
  late = false,
): string[] => [
  ...(late ? ['late'] : []),
  ...(flag ? [flag] : []),
  ...(extendedUntil ? [`extended until ${dayAndTime(extendedUntil)}`] : []),
];
