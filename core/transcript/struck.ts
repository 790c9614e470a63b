import { quietestMoment, withoutSpan, type Span } from '#core/audio';
import type { Word } from './transcript.ts';

/** Seconds that the search for the quiet reaches into a word, since word ends are known to some hundredths only. */
const REACH = 0.03;
/** Seconds of the pause around struck words that stay, so that the words beside them keep their breath. */
const BREATH = 0.15;

/**
 * What goes from a recording when words are struck out, in its seconds: from the quietest moment before to the quietest after.
 * Of the two pauses around them a little stays.
 * @param struck positions of the words
 */
export function struckSpans(
  words: readonly Word[],
  struck: ReadonlySet<number>,
  { samples, rate }: { samples: Float32Array; rate: number },
): Span[] {
  const duration = samples.length / rate;
  const spans: Span[] = [];
  for (let from = 0; from < words.length; from++) {
    if (!struck.has(from)) continue;
    let to = from;
    while (struck.has(to + 1)) to++;
    const [before, after] = [words[from - 1], words[to + 1]];
    const start = before ? quietBetween(before, words[from]!, 'start') : 0;
    const end = after ? quietBetween(words[to]!, after, 'end') : duration;
    if (end > start) spans.push({ start, end });
    from = to;
  }
  return spans;

  function quietBetween(left: Word, right: Word, side: 'start' | 'end'): number {
    const pause = { start: left.end - REACH, end: Math.max(right.start, left.end) + REACH };
    if (pause.end - pause.start > 2 * (BREATH + REACH)) {
      // In a long pause the cut keeps near the word that stays.
      return side === 'start'
        ? quietestMoment(samples, rate, { start: left.end + BREATH / 2, end: left.end + BREATH })
        : quietestMoment(samples, rate, { start: right.start - BREATH, end: right.start - BREATH / 2 });
    }
    return quietestMoment(samples, rate, pause);
  }
}

/** What is left of a recording's kept stretches without others. */
export const withoutSpans = (kept: readonly Span[], cuts: readonly Span[]): Span[] =>
  cuts.reduce<Span[]>((left, cut) => withoutSpan(left, cut), [...kept]);
