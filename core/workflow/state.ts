/** Where a work stands on its way. `waiting`: nothing said yet; `begun`: there is a draft; `returned`: the student has it. */
export type WorkState = 'waiting' | 'begun' | 'returned';

export interface WorkFacts {
  returnedAt: string | null;
  remarks: number;
  scores: number;
}

export function workState({ returnedAt, remarks, scores }: WorkFacts): WorkState {
  if (returnedAt !== null) return 'returned';
  return remarks > 0 || scores > 0 ? 'begun' : 'waiting';
}

/** Whether a work came in after it was due. Both are ISO 8601 instants. */
export const isLate = (handedInAt: string, dueAt: string | null): boolean =>
  dueAt !== null && Date.parse(handedInAt) > Date.parse(dueAt);
