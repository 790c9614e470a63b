import type { DrawnText } from './page-text.ts';

/** This many characters below each other make a column. */
const FEWEST = 3;
const SIGN = /^[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\u3000-\u303f\uff01-\uff60\u30fc]$/u;

/**
 * Finds vertical columns of Chinese or Japanese that the page draws character by character, and turns each into one line rotated by
 * 90 degrees. PDF fonts with a vertical writing mode already give such lines.
 */
export function inColumns(drawn: readonly DrawnText[]): DrawnText[] {
  const turned: DrawnText[] = [];
  let from = 0;
  while (from < drawn.length) {
    let to = from + 1;
    while (to < drawn.length && isBelow(drawn[to - 1]!, drawn[to]!)) to++;
    const column = drawn.slice(from, to);
    // A page may hold more signs than one call takes arguments.
    for (const [at, one] of column.entries())
      turned.push(column.length < FEWEST ? one : quarterTurned(one, column[at + 1]));
    from = to;
  }
  return turned;
}

const isSign = ({ text, angle }: DrawnText): boolean => angle === 0 && SIGN.test(text.trim());

function isBelow(above: DrawnText, below: DrawnText): boolean {
  if (!isSign(above) || !isSign(below)) return false;
  const step = below.y - above.y;
  return Math.abs(below.x - above.x) < 0.35 * above.height && step > 0.6 * above.height && step < 1.7 * above.height;
}

/** The line begins at the character's top right corner and runs down to the next character. */
const quarterTurned = (one: DrawnText, next: DrawnText | undefined): DrawnText => ({
  ...one,
  ...{ text: one.text.trim(), x: one.x + one.width, width: Math.min(1.2 * one.height, (next?.y ?? Infinity) - one.y) },
  angle: 90,
});
