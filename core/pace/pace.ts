/** One student's work on the desk, during a sitting. */
export interface Visit {
  submission: string;
  /** Seconds in which something was done. */
  seconds: number;
  /** Nothing is left to do about it: it is ready or returned. */
  done: boolean;
}

export interface Pace {
  /** Students done in this sitting. */
  done: number;
  /** Students of the class that are still to do. */
  left: number;
  /** Seconds spent in this sitting. */
  spent: number;
  /** Seconds each student took so far; undefined until one is done. */
  perStudent: number | undefined;
  /** Seconds until the class is done, at this pace. */
  toGo: number | undefined;
}

/** A class of 30 in 20 minutes (common practice): seconds for each. */
export const GOOD_PACE_SECONDS = 40;

/**
 * How fast a class is marked. Time that was spent on work which is not done yet counts too: it is part of the evening.
 * @param left works of the class that are still to do
 */
export function pace(visits: readonly Visit[], left: number): Pace {
  const done = new Set(visits.filter((visit) => visit.done).map(({ submission }) => submission)).size;
  const spent = visits.reduce((sum, { seconds }) => sum + seconds, 0);
  const perStudent = done > 0 ? spent / done : undefined;
  return { done, left, spent, perStudent, toGo: perStudent === undefined ? undefined : perStudent * left };
}

/**
 * The time in which somebody was at work: pauses longer than `longestPause` do not count, nor does any part of them.
 * @param moments when something was done, in seconds, rising
 */
export function activeSeconds(moments: readonly number[], longestPause: number): number {
  return moments.reduce((sum, moment, index) => {
    const step = moment - (moments[index - 1] ?? moment);
    return step <= longestPause ? sum + step : sum;
  }, 0);
}
