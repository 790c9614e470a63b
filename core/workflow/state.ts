/**
 * Where a work stands on its way. `waiting`: nothing said yet; `back`: the same, but it comes back after a return; `begun`:
 * there is a draft; `ready`: everything is scored and something is said; `returned`: the student has it.
 */
export type WorkState = 'waiting' | 'back' | 'begun' | 'ready' | 'returned';

export interface WorkFacts {
  returnedAt: string | null;
  remarks: number;
  scores: number;
  /** How many criteria and questions there are to score. */
  parts: number;
  /** An earlier version was returned. */
  backAgain: boolean;
}

export function workState({ returnedAt, remarks, scores, parts, backAgain }: WorkFacts): WorkState {
  if (returnedAt !== null) return 'returned';
  if (remarks === 0 && scores === 0) return backAgain ? 'back' : 'waiting';
  return remarks > 0 && parts > 0 && scores >= parts ? 'ready' : 'begun';
}

/** Whether a work came in after it was due. Both are ISO 8601 instants. */
export const isLate = (handedInAt: string, dueAt: string | null): boolean =>
  dueAt !== null && Date.parse(handedInAt) > Date.parse(dueAt);
