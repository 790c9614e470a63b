/** Seconds of each operator: S. Card, T. Moran, A. Newell, “The keystroke-level model for user performance time”, 1980 (from memory). */
const SECONDS = { K: 0.28, P: 1.1, B: 0.1, H: 0.4, M: 1.35 } as const;

/** @param operators e.g. `HMKK` */
export const handSeconds = (operators: string): number =>
  Math.round([...operators].reduce((sum, operator) => sum + SECONDS[operator as keyof typeof SECONDS], 0) * 100) / 100;
