/**
 * The keystroke-level model: how long a practised person needs for a routine task, as the sum of what their hands and mind do.
 * Card, Moran & Newell, “The keystroke-level model for user performance time with interactive systems”, Communications of the
 * ACM 23 (7), 1980, pp. 396–410; times from its figure 1, written down from memory. Seconds.
 */
export const OPERATOR_SECONDS = {
  /** A key or a button, by an average skilled typist (55 words a minute). */
  K: 0.2,
  /** Pointing at something with the mouse. */
  P: 1.1,
  /** Moving the hand between keyboard and mouse. */
  H: 0.4,
  /** Preparing in mind. */
  M: 1.35,
} as const;

export type Operator = keyof typeof OPERATOR_SECONDS;

/**
 * Seconds of hand work for a sequence of operators, e.g. `M P K P K`; anything but operators and spaces is refused.
 * @throws RangeError
 */
export function keystrokeSeconds(sequence: string): number {
  let seconds = 0;
  for (const letter of sequence.replace(/\s+/g, '')) {
    if (!(letter in OPERATOR_SECONDS)) throw new RangeError(`There is no operator ${letter}`);
    seconds += OPERATOR_SECONDS[letter as Operator];
  }
  return seconds;
}

/** Typed text, with the key of its space behind each word. English words have 5 letters on average (common practice). */
export const typed = (words: number): string => 'K'.repeat(words * 6);
