import type { Word } from './transcript.ts';

/** A sentence or another line of what was said, with its time in seconds. */
export interface SpokenLine {
  text: string;
  start: number;
  end: number;
}

const LAST_OF_LINE = /[.!?…。！？؟।]["'”’»)\]]*$/u;
/** Seconds of silence that end a line where no punctuation does. */
const LINE_PAUSE = 0.9;

/** The lines of a transcript whose words have times, in their order: they end at punctuation, or at a long pause. */
export function linesOf(words: readonly Word[]): SpokenLine[] {
  const lines: SpokenLine[] = [];
  let open: Word[] = [];
  words.forEach((word, index) => {
    open.push(word);
    const next = words[index + 1];
    if (next && !LAST_OF_LINE.test(word.word) && next.start - word.end < LINE_PAUSE) return;
    lines.push({ text: open.map((one) => one.word).join(' '), start: open[0]!.start, end: word.end });
    open = [];
  });
  return lines;
}
