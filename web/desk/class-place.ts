import type { ClassStates } from '#contract/submissions';

export interface Place {
  /** From 1, among those who handed in. */
  position: number;
  count: number;
  previous: string | undefined;
  next: string | undefined;
}

/** Where a student stands among those of the class who handed in. */
export function placeIn({ students }: ClassStates, student: string): Place {
  const handedIn = students.filter(({ submission }) => submission !== null);
  const index = handedIn.findIndex((one) => one.student === student);
  return {
    position: index + 1,
    count: handedIn.length,
    previous: handedIn[index - 1]?.submission ?? undefined,
    next: index < 0 ? undefined : (handedIn[index + 1]?.submission ?? undefined),
  };
}
