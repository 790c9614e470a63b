import { median } from './median.ts';
import type { Line } from './page-text.ts';

/** If so many lines stand above the one before them in the same column, the page was not drawn in reading order. */
const JUMBLED = { share: 0.15, lines: 3 };
/** Two columns of prose that were drawn across: so many lines have the next one beside them, and are longer than cells of a table. */
const ACROSS = { share: 0.4, letters: 20 };

/**
 * Lines in the order in which they are read. Nearly all programs draw a page in that order; where one did not, the page is
 * cut at white stripes across and down (recursive X-Y cut; Nagy & Seth 1984).
 */
export function readingOrder(lines: Line[]): Line[] {
  const jumps = lines.filter((line, index) => {
    const before = lines[index - 1];
    return before && line.top < before.top - before.size && line.left < before.right && line.right > before.left;
  });
  const jumbled = jumps.length >= JUMBLED.lines && jumps.length > JUMBLED.share * lines.length;
  return jumbled || isDrawnAcross(lines) ? cut(lines) : lines;
}

function isDrawnAcross(lines: Line[]): boolean {
  const beside = lines.filter((line, index) => {
    const next = lines[index + 1];
    return next && Math.abs(next.top - line.top) < line.size / 2 && next.left > line.right;
  });
  const letters = median(lines.map(({ parts }) => parts.reduce((sum, { text }) => sum + text.length, 0)))!;
  return beside.length >= JUMBLED.lines && beside.length > ACROSS.share * lines.length && letters >= ACROSS.letters;
}

function cut(lines: Line[]): Line[] {
  if (lines.length < 2) return lines;
  const size = median(lines.map((line) => line.size))!;
  const columns = stripes(
    lines,
    ({ left }) => left,
    ({ right }) => right,
    size,
  );
  if (columns.length > 1) return columns.flatMap(cut);
  const rows = stripes(
    lines,
    ({ top }) => top,
    (line) => line.top + line.size,
    0.9 * size,
  );
  if (rows.length > 1) return rows.flatMap(cut);
  return [...lines].sort((a, b) => a.top - b.top || a.left - b.left);
}

/** Groups of lines between which a stripe of at least `gap` is empty. */
function stripes(lines: Line[], from: (line: Line) => number, to: (line: Line) => number, gap: number): Line[][] {
  const groups: Line[][] = [];
  let end = -Infinity;
  for (const line of [...lines].sort((a, b) => from(a) - from(b))) {
    if (from(line) - end > gap) groups.push([]);
    groups.at(-1)!.push(line);
    end = Math.max(end, to(line));
  }
  return groups;
}
