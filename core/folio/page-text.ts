import type { PlacedText } from './leaf.ts';
import { readingOrder } from './reading-order.ts';

/** Characters as a page draws them in one go, in the order in which it draws them; lengths in points, `y` down from the top. */
export interface DrawnText {
  text: string;
  x: number;
  y: number;
  width: number;
  /** The size of its letters. */
  height: number;
  /** Degrees clockwise. */
  angle: number;
}

/** A line of a column. */
export interface Line {
  parts: DrawnText[];
  left: number;
  right: number;
  top: number;
  size: number;
  angle: number;
}

/** A gap of so many letter heights in a line parts two columns. */
const COLUMN_GAP = 1.8;
/** And one of so many parts two words, where the page draws no space. */
const WORD_GAP = 0.18;
const SAME_LINE = 0.45;

/**
 * The words of a page in reading order, line by line, with what parts them: a page knows no spaces between lines and no
 * paragraphs, so both are read from where the lines stand.
 */
export function placedTexts(drawn: readonly DrawnText[]): PlacedText[] {
  const lines = readingOrder(linesOf(drawn));
  const leading = usualLeading(lines);
  return lines.flatMap((line, index) => {
    const next = lines[index + 1];
    const end = !next || endsParagraph(line, next, lines, leading) ? '\n' : joinsWord(line, next) ? '' : ' ';
    return line.parts.map((part, at): PlacedText => {
      const following = line.parts[at + 1];
      const space = following && (/\s$/.test(part.text) || /^\s/.test(following.text) ? false : apart(part, following));
      const { text, x, y, width, height, angle } = part;
      const glue = !following ? end : space ? ' ' : '';
      return { text, x, y, width, height, glue, ...(angle !== 0 && { angle }) };
    });
  });
}

const apart = (one: DrawnText, next: DrawnText): boolean => next.x - (one.x + one.width) > WORD_GAP * one.height;

function linesOf(drawn: readonly DrawnText[]): Line[] {
  const lines: Line[] = [];
  let pendingSpace = false;
  for (const part of drawn) {
    if (part.text.trim() === '') {
      pendingSpace ||= part.text !== '';
      continue;
    }
    const line = lines.at(-1);
    if (line && continues(line, part)) {
      if (pendingSpace) withSpace(line);
      line.parts.push({ ...part });
      line.right = Math.max(line.right, part.x + part.width);
      line.size = Math.max(line.size, part.height);
    } else
      lines.push({
        parts: [{ ...part }],
        left: part.x,
        right: part.x + part.width,
        top: part.y,
        size: part.height,
        angle: part.angle,
      });
    pendingSpace = false;
  }
  for (const line of lines) trimEnd(line);
  return lines;
}

/** A space that was drawn by itself belongs to the word before it. */
function withSpace(line: Line): void {
  const last = line.parts.at(-1)!;
  if (!/\s$/.test(last.text)) last.text += ' ';
}

function trimEnd(line: Line): void {
  const last = line.parts.at(-1)!;
  last.text = last.text.replace(/\s+$/, '');
}

function continues(line: Line, part: DrawnText): boolean {
  const size = Math.max(line.size, part.height);
  if (line.angle !== part.angle) return false;
  // Turned text runs along another axis; each piece is a line of its own.
  if (part.angle !== 0) return false;
  const last = line.parts.at(-1)!;
  const bottoms = last.y + last.height - (part.y + part.height);
  const gap = part.x - line.right;
  return Math.abs(bottoms) < SAME_LINE * size && gap < COLUMN_GAP * size && gap > -size;
}

function usualLeading(lines: readonly Line[]): number {
  const steps = lines
    .slice(1)
    .map((line, index) => (line.top - lines[index]!.top) / line.size)
    .filter((step) => step > 0.8 && step < 3)
    .sort((a, b) => a - b);
  return steps[Math.floor(steps.length / 2)] ?? 1.3;
}

const LIST_MARK = /^(?:[•◦▪‣⁃–●○■□*-]|\(?\d{1,3}[.)]|\(?[a-zA-Z][.)])\s/;
const SENTENCE_OPEN = /[^.!?:;…)"”’\]]$/;

function endsParagraph(line: Line, next: Line, lines: readonly Line[], leading: number): boolean {
  const goesOn = SENTENCE_OPEN.test(textOf(line)) && /^[\p{Ll}]/u.test(textOf(next));
  const step = next.top - line.top;
  if (line.angle !== next.angle) return true;
  // The next column or the next block beside it.
  if (step <= 0 || next.left > line.right || next.right < line.left) return !goesOn;
  if (Math.abs(next.size - line.size) > 0.15 * line.size) return true;
  if (step > (leading + 0.35) * line.size) return true;
  if (LIST_MARK.test(`${textOf(next)} `)) return true;
  if (goesOn) return false;
  const column = lines.filter((other) => Math.abs(other.left - line.left) < 3 * line.size);
  const width = Math.max(...column.map(({ right }) => right)) - line.left;
  return line.right - line.left < 0.72 * width || next.left - line.left > line.size;
}

/** A word that is hyphenated at the end of a line goes on in the next. */
const joinsWord = (line: Line, next: Line): boolean =>
  /\p{L}[-‐\u00ad]$/u.test(textOf(line)) && /^\p{Ll}/u.test(textOf(next));

const textOf = (line: Line): string => line.parts.map(({ text }) => text).join('');
