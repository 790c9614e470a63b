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

/** How many minutes after it was due a work came in, begun ones counted; 0 where it was in time. Both are ISO 8601 instants. */
export const minutesLate = (handedInAt: string, dueAt: string | null): number =>
  dueAt === null ? 0 : Math.max(0, Math.ceil((Date.parse(handedInAt) - Date.parse(dueAt)) / 60_000));

/** Whether a work came in after it was due. */
export const isLate = (handedInAt: string, dueAt: string | null): boolean => minutesLate(handedInAt, dueAt) > 0;
