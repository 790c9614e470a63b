import type { Span } from './edit.ts';

/** Seconds: two stretches that are nearer than this are one, since players tell their place only so often. */
const SEAM = 0.3;
/** Nobody needs to hear the last breath of a recording to have heard it. */
const HEARD_SHARE = 0.9;

/**
 * All that was played, however often and in whatever order.
 * @param played stretches in seconds
 * @param duration of the recording in seconds; nothing beyond it counts
 * @returns in order, each apart from the next
 */
export function joinedPlayed(played: readonly Span[], duration: number): Span[] {
  const inside = played
    .map(({ start, end }) => ({ start: Math.max(0, start), end: Math.min(duration, end) }))
    .filter(({ start, end }) => end > start)
    .sort((a, b) => a.start - b.start);
  const joined: Span[] = [];
  for (const { start, end } of inside) {
    const last = joined.at(-1);
    if (last && start - last.end <= SEAM) last.end = Math.max(last.end, end);
    else joined.push({ start, end });
  }
  return joined;
}

/** How much of a recording was played, from 0 to 1. */
export const playedShare = (played: readonly Span[], duration: number): number =>
  duration > 0 ? joinedPlayed(played, duration).reduce((sum, { start, end }) => sum + end - start, 0) / duration : 0;

/** Whether as much was played as somebody hears who hears it all. */
export const isHeard = (played: readonly Span[], duration: number): boolean =>
  playedShare(played, duration) >= HEARD_SHARE;
