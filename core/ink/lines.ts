import type { Box } from './stroke.ts';

/** A word as it lies on screen, in pixels; its offsets are UTF-16 units of the canonical text, `end` exclusive. */
export interface WordBox extends Box {
  start: number;
  end: number;
}

/** Words beside each other. */
export interface Line extends Box {
  words: readonly WordBox[];
  /** Height of its letters. */
  height: number;
}

/** Words in the order of the text, as the lines in which they are set. */
export function linesOfWords(words: readonly WordBox[]): Line[] {
  const rows: WordBox[][] = [];
  for (const word of words) {
    const row = rows.at(-1);
    const last = row?.at(-1);
    const middle = (word.top + word.bottom) / 2;
    if (row && last && middle > last.top && middle < last.bottom && word.left >= last.left) row.push(word);
    else rows.push([word]);
  }
  return rows.map((row) => {
    const [top, bottom] = [Math.min(...row.map((word) => word.top)), Math.max(...row.map((word) => word.bottom))];
    return { words: row, left: row[0]!.left, right: row.at(-1)!.right, top, bottom, height: bottom - top };
  });
}

/** Where in the text a place on a line is: an offset with its fraction, also before its first and behind its last letter. */
export function offsetAt(line: Line, x: number): number {
  const [first, last] = [line.words[0]!, line.words.at(-1)!];
  if (x <= first.left) return first.start - (first.left - x) / letterWidth(first);
  if (x >= last.right) return last.end + (x - last.right) / letterWidth(last);
  const index = line.words.findLastIndex(({ left }) => left <= x);
  const word = line.words[index]!;
  if (x <= word.right) return between(x, word.left, word.right, word.start, word.end);
  const next = line.words[index + 1]!;
  return between(x, word.right, next.left, word.end, next.start);
}

/** Where on screen an offset lies. Inverse of {@link offsetAt}, on whatever line its word stands now. */
export function placeOf(lines: readonly Line[], offset: number): { line: Line; x: number } {
  const line = lines.findLast(({ words }) => words[0]!.start <= offset) ?? lines[0]!;
  const [first, last] = [line.words[0]!, line.words.at(-1)!];
  if (offset <= first.start) return { line, x: first.left - (first.start - offset) * letterWidth(first) };
  const index = line.words.findLastIndex(({ start }) => start <= offset);
  const word = line.words[index]!;
  if (offset <= word.end) return { line, x: between(offset, word.start, word.end, word.left, word.right) };
  const next = line.words[index + 1];
  if (next) return { line, x: between(offset, word.end, next.start, word.right, next.left) };
  return { line, x: last.right + Math.min(offset - last.end, 1) * letterWidth(last) };
}

const letterWidth = ({ start, end, left, right }: WordBox): number => (right - left) / Math.max(1, end - start) || 1;

const between = (value: number, from: number, to: number, low: number, high: number): number =>
  to > from ? low + ((value - from) / (to - from)) * (high - low) : low;
