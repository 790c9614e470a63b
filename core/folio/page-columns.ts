import type { DrawnText } from './page-text.ts';

/** So many signs below each other are a column that is read down. */
const FEWEST = 3;
const SIGN = /^[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\u3000-\u303f\uff01-\uff60\u30fc]$/u;

/**
 * Chinese and Japanese that is set down the page, where a page draws each sign by itself as if it were a line of its own: the signs of a
 * column become a line that is turned by a quarter, as those are that a font sets down by itself.
 */
export function inColumns(drawn: readonly DrawnText[]): DrawnText[] {
  const turned: DrawnText[] = [];
  let from = 0;
  while (from < drawn.length) {
    let to = from + 1;
    while (to < drawn.length && isBelow(drawn[to - 1]!, drawn[to]!)) to++;
    const column = drawn.slice(from, to);
    turned.push(...(column.length < FEWEST ? column : column.map((one, at) => quarter(one, column[at + 1]))));
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

/** Its line begins where it is drawn, and runs down to the next sign. */
const quarter = (one: DrawnText, next: DrawnText | undefined): DrawnText => ({
  ...one,
  ...{ text: one.text.trim(), x: one.x + one.width, width: Math.min(1.2 * one.height, (next?.y ?? Infinity) - one.y) },
  angle: 90,
});
