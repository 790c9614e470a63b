import type { Word } from './transcript.ts';

/** A caption: lines that stand on the screen together for a while; seconds. */
export interface Cue {
  start: number;
  end: number;
  lines: string[];
}

export interface CueRules {
  /** Characters of a line. */
  lineLength: number;
  lines: number;
  /** Seconds. */
  longest: number;
  /** Characters that are read in a second. */
  speed: number;
}

/** Common captioning practice. */
export const CUE_RULES: CueRules = { lineLength: 42, lines: 2, longest: 7, speed: 17 };

/** Seconds of silence that always begin a new cue. */
const PAUSE = 1;
/** Seconds that a cue may stay beyond its last word to be read, where nothing follows. */
const LINGER = 3;
/** Seconds between two cues, so that the eye sees the change. */
const GAP = 0.04;

/**
 * Captions of words with times. A cue ends with a sentence where it can, otherwise at a clause or the longest pause; it stays
 * as long as it takes to read as far as the next one allows. A word longer than a line stands alone.
 */
export function cuesOf(words: readonly Word[], rules: CueRules = CUE_RULES): Cue[] {
  const groups: Word[][] = [];
  for (let at = 0; at < words.length;) {
    const most = fitting(words, at, rules);
    const end = bestEnd(words, at, most);
    groups.push(words.slice(at, end));
    at = end;
  }
  return groups.map((group, index) => {
    const lines = wrapped(
      group.map(({ word }) => word),
      rules.lineLength,
    );
    const [start, said] = [group[0]!.start, group.at(-1)!.end];
    const needed = start + lines.join(' ').length / rules.speed;
    const next = groups[index + 1]?.[0]?.start ?? Infinity;
    const end = Math.min(Math.max(said, Math.min(needed, said + LINGER)), next - GAP, start + rules.longest);
    return { start, end: Math.max(end, Math.min(said, start + rules.longest)), lines };
  });
}

/** How many words from here go into one cue. */
function fitting(words: readonly Word[], from: number, rules: CueRules): number {
  const first = words[from]!;
  let to = from + 1;
  while (to < words.length) {
    const [before, word] = [words[to - 1]!, words[to]!];
    const texts = words.slice(from, to + 1).map(({ word }) => word);
    if (word.start - before.end >= PAUSE || word.end - first.start > rules.longest) break;
    if (wrapped(texts, rules.lineLength).length > rules.lines) break;
    to++;
  }
  return to;
}

/** Where a cue of at most so many words ends best. */
function bestEnd(words: readonly Word[], from: number, most: number): number {
  if (most === words.length || words[most]!.start - words[most - 1]!.end >= PAUSE) {
    // All that is left, or all up to a pause, stands together where it fits.
    return lastSentence(words, from, most) ?? most;
  }
  const half = from + Math.ceil((most - from) / 2);
  let [best, highest] = [most, -Infinity];
  for (let to = half; to <= most; to++) {
    const gap = (words[to]?.start ?? Infinity) - words[to - 1]!.end;
    const score = stop(words[to - 1]!.word) + Math.min(gap, PAUSE) + (to - from) * 0.01;
    if (score >= highest) [best, highest] = [to, score];
  }
  return lastSentence(words, from, most) ?? best;
}

function lastSentence(words: readonly Word[], from: number, most: number): number | undefined {
  for (let to = most; to > from + 2; to--) if (stop(words[to - 1]!.word) === 2) return to;
  return undefined;
}

const stop = (word: string): number => (/[.!?…][”’"')\]]*$/u.test(word) ? 2 : /[,;:–—][”’"')\]]*$/u.test(word) ? 1 : 0);

/** Words in lines of a length; two lines are about as long as each other. */
export function wrapped(words: readonly string[], length: number): string[] {
  const greedy = filled(words, length);
  if (greedy.length !== 2) return greedy;
  const total = words.join(' ').length;
  for (let width = Math.ceil(total / 2); width < length; width++) {
    const even = filled(words, width);
    if (even.length === 2 && even.every((line) => line.length <= length)) return even;
  }
  return greedy;
}

function filled(words: readonly string[], length: number): string[] {
  const lines: string[] = [];
  for (const word of words) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + 1 + word.length <= length) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}
