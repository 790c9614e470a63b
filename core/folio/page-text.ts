import type { PlacedText } from './leaf.ts';
import { max } from 'd3-array';
import { withAccents } from './page-accents.ts';
import { asWritten, isRightToLeft, spokenOrder, touchesWithoutSpace, withBrackets } from './page-script.ts';
import { withColumns } from './page-vertical.ts';
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

/** A part of a line, seen along the line: `left` and `top` are those of upright text turned with it. */
export interface Part extends DrawnText {
  left: number;
  right: number;
  top: number;
  bottom: number;
  /** A space was drawn by itself behind it. */
  spaced?: boolean;
}

/** A line of a column, in the frame of its angle. */
export interface Line {
  parts: Part[];
  left: number;
  right: number;
  top: number;
  /** Where its largest letters end. */
  bottom: number;
  size: number;
  angle: number;
}

/** A gap of so many letter heights in a line parts two columns. */
const COLUMN_GAP = 1.8;
/** And one of so many parts two words, where the page draws no space. */
const WORD_GAP = 0.18;
const SAME_LINE = 0.45;
/** Letters so much smaller than those of the line may stand higher or lower: the call of a note, an index. */
const SMALL = { share: 0.8, line: 0.75 };

/**
 * The words of a page in reading order, line by line, with what parts them: a page knows no spaces between lines and no
 * paragraphs, so both are read from where the lines stand.
 */
export function placedTexts(drawn: readonly DrawnText[]): PlacedText[] {
  const lines = inOrder(linesOf(drawn));
  const leading = usualLeading(lines);
  return lines.flatMap((line, index) => {
    const next = lines[index + 1];
    const ends = !next || endsParagraph(line, next, lines, leading);
    const joins = !ends && joinsWord(line, next);
    if (joins) softenHyphen(line);
    const end = ends ? '\n' : joins || touchesWithoutSpace(textOf(line), textOf(next)) ? '' : ' ';
    return line.parts.map((part, at): PlacedText => {
      const following = line.parts[at + 1];
      const space = following && (/\s$/.test(part.text) || /^\s/.test(following.text) ? false : apart(part, following));
      const { text, x, y, width, height, angle } = part;
      const glue = !following ? end : space ? ' ' : '';
      return { text, x, y, width, height, glue, ...(angle !== 0 && { angle }) };
    });
  });
}

/** Upright lines in reading order, then those that are turned, each angle by itself. */
function inOrder(lines: Line[]): Line[] {
  const angles = [...new Set(lines.map(({ angle }) => angle))].sort((a, b) => Math.abs(a) - Math.abs(b));
  if (angles.length === 1) return readingOrder(lines);
  const upright = readingOrder(lines.filter(({ angle }) => angle === 0));
  return [...upright, ...angles.filter(Boolean).flatMap((angle) => lines.filter((line) => line.angle === angle))];
}

const apart = (one: Part, next: Part): boolean => {
  // An accent belongs to the letter before it, wherever it was drawn.
  if (/^\p{M}/u.test(next.text)) return false;
  const gap = Math.max(next.left - one.right, one.left - next.right);
  // Signs that stand for words are spread over the line.
  const least = touchesWithoutSpace(one.text, next.text) ? 4 * WORD_GAP : WORD_GAP;
  return gap > least * one.height;
};

/** A part seen from the beginning of its line: turned back around the corner of the page. */
function partOf(drawn: DrawnText): Part {
  const turn = (drawn.angle * Math.PI) / 180;
  const left = drawn.x * Math.cos(turn) + drawn.y * Math.sin(turn);
  const top = drawn.y * Math.cos(turn) - drawn.x * Math.sin(turn);
  return { ...drawn, left, right: left + drawn.width, top, bottom: top + drawn.height };
}

function linesOf(upright: readonly DrawnText[]): Line[] {
  const drawn = withColumns(withAccents(upright)).map((one) => ({ ...one, text: asWritten(one.text) }));
  const lines: Line[] = [];
  let pendingSpace = false;
  for (const one of drawn) {
    if (one.text.trim() === '') {
      pendingSpace ||= one.text !== '';
      continue;
    }
    const part = partOf(one);
    const line = lines.at(-1);
    if (line && continues(line, part)) {
      if (pendingSpace) line.parts.at(-1)!.spaced = true;
      line.parts.push(part);
      line.left = Math.min(line.left, part.left);
      line.right = Math.max(line.right, part.right);
      if (part.height > line.size) line.bottom = part.bottom;
      line.size = Math.max(line.size, part.height);
    } else {
      const { left, right, top, bottom, height, angle } = part;
      lines.push({ parts: [part], left, right, top, bottom, size: height, angle });
    }
    pendingSpace = false;
  }
  const parts = withBrackets(lines.map((line) => spokenOrder(line.parts)));
  lines.forEach((line, index) => {
    line.parts = parts[index]!;
    trimEnd(line);
  });
  return lines;
}

function trimEnd(line: Line): void {
  const last = line.parts.at(-1)!;
  last.text = last.text.trimEnd();
}

function continues(line: Line, part: Part): boolean {
  if (line.angle !== part.angle) return false;
  const size = Math.max(line.size, part.height);
  const small = Math.min(line.size, part.height) < SMALL.share * size;
  const level = Math.abs(line.bottom - part.bottom) < (small ? SMALL.line : SAME_LINE) * size;
  const after = part.left - line.right;
  if (level && after < COLUMN_GAP * size && after > -size) return true;
  // Scripts that are read from right to left are drawn from either side.
  const before = line.left - part.right;
  const backwards = isRightToLeft(part.text) || isRightToLeft(textOf(line));
  return level && backwards && before < COLUMN_GAP * size && before > -size;
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
  const rightToLeft = isRightToLeft(textOf(line));
  const begin = ({ left, right }: Line): number => (rightToLeft ? -right : left);
  const column = lines.filter(
    (other) => other.angle === line.angle && Math.abs(begin(other) - begin(line)) < 3 * line.size,
  );
  const width = max(column, ({ left, right }) => (rightToLeft ? -left : right))! - begin(line);
  return line.right - line.left < 0.72 * width || begin(next) - begin(line) > line.size;
}

/** A word that is hyphenated at the end of a line goes on in the next. */
const joinsWord = (line: Line, next: Line): boolean =>
  /\p{L}[-‐\u00ad]$/u.test(textOf(line)) && /^\p{Ll}/u.test(textOf(next));

/** Such a hyphen becomes one that is not seen or searched (U+00AD), as wide as before: all offsets stay. */
function softenHyphen(line: Line): void {
  const last = line.parts.at(-1)!;
  if (/\p{L}{2}[-‐]$/u.test(textOf(line))) last.text = last.text.replace(/[-‐]$/u, '\u00ad');
}

const textOf = (line: Line): string => line.parts.map(({ text }) => text).join('');
