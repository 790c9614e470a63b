/**
 * Where a work stands on its way. `waiting`: nothing said yet; `back`: the same, but it comes back after a return; `begun`:
 * there is a draft; `ready`: a teacher says that it may go out; `returned`: the student has it.
 */
export type WorkState = 'waiting' | 'back' | 'begun' | 'ready' | 'returned';

export interface WorkFacts {
  returnedAt: string | null;
  readyAt: string | null;
  remarks: number;
  scores: number;
  /** An earlier version was returned. */
  backAgain: boolean;
}

export function workState({ returnedAt, readyAt, remarks, scores, backAgain }: WorkFacts): WorkState {
  if (returnedAt !== null) return 'returned';
  if (readyAt !== null) return 'ready';
  if (remarks === 0 && scores === 0) return backAgain ? 'back' : 'waiting';
  return 'begun';
}

/**
 * How many minutes after it was due a work came in, begun ones counted; 0 where it was in time. The minute that was set belongs to it: what
 * is due at 23:59 may come until midnight. Both are ISO 8601 instants.
 */
export const minutesLate = (handedInAt: string, dueAt: string | null): number =>
  dueAt === null ? 0 : Math.max(0, minuteOf(handedInAt) - minuteOf(dueAt));

const minuteOf = (instant: string): number => Math.floor(Date.parse(instant) / 60_000);

/** Whether a work came in after it was due. */
export const isLate = (handedInAt: string, dueAt: string | null): boolean => minutesLate(handedInAt, dueAt) > 0;
