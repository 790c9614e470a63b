/** A stretch of a recording, in seconds. */
export interface Span {
  start: number;
  end: number;
}

/** What of a recording is heard. The recording itself stays as it was spoken. */
export interface SoundEdit {
  /** In their order, none overlapping another. */
  kept: readonly Span[];
  /** Brought to the loudness that all remarks have. */
  levelled: boolean;
}

const lengthOf = ({ start, end }: Span): number => end - start;

/** How long an edited recording is, in seconds. */
export const keptSeconds = (kept: readonly Span[]): number => kept.reduce((sum, span) => sum + lengthOf(span), 0);

/**
 * What is left when a stretch of the original is struck out.
 * @param shortest a piece shorter than so many seconds goes too
 */
export function withoutSpan(kept: readonly Span[], cut: Span, shortest = 0.02): Span[] {
  return kept
    .flatMap(({ start, end }) => [
      { start, end: Math.min(end, Math.max(start, cut.start)) },
      { start: Math.max(start, Math.min(end, cut.end)), end },
    ])
    .filter((span) => lengthOf(span) >= shortest);
}

/** What is left of the kept stretches between two moments of the original. */
export const withinSpan = (kept: readonly Span[], { start, end }: Span): Span[] =>
  withoutSpan(withoutSpan(kept, { start: -Infinity, end: start }), { start: end, end: Infinity });

/** When a moment of the original is heard, in seconds of the edited recording; undefined where it was cut out. */
export function heardAt(kept: readonly Span[], moment: number): number | undefined {
  let before = 0;
  for (const span of kept) {
    if (moment >= span.start && moment <= span.end) return before + moment - span.start;
    before += lengthOf(span);
  }
  return undefined;
}

/** Which moment of the original is heard at a moment of the edited recording, both in seconds. */
export function spokenAt(kept: readonly Span[], heard: number): number {
  let left = heard;
  for (const span of kept) {
    if (left <= lengthOf(span)) return span.start + left;
    left -= lengthOf(span);
  }
  return kept.at(-1)?.end ?? heard;
}
