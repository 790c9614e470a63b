import type { DrawnText } from './page-text.ts';

/** One or two Chinese, Japanese or Korean characters or punctuation marks. */
const SIGN =
  /^[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}\u3000-\u303f\uff01-\uff60\u30fc]{1,2}$/u;
/** So many signs below each other are a column. */
const LEAST = 3;
/** In heights of a sign: how far a sign of a column may stand aside, above the one before it, and below it. */
/** So many heights at least go from one sign to the next, on average. */
const SHORTEST = 0.25;
const STEP = { aside: 0.5, up: 0.7, down: 3.2 };

/**
 * Columns of signs that are written from top to bottom become lines that are turned by a quarter: some programs draw each sign upright at
 * a place of its own, a little higher or lower than its neighbours.
 */
export function withColumns(drawn: readonly DrawnText[]): DrawnText[] {
  const signs = drawn.filter(({ text }) => text.trim() !== '');
  if (signs.filter(({ text }) => SIGN.test(text)).length < LEAST) return [...drawn];
  const result: DrawnText[] = [];
  for (let from = 0; from < signs.length;) {
    let to = from + 1;
    while (to < signs.length && goesDown(signs[to - 1]!, signs[to]!)) to++;
    const column = signs.slice(from, to);
    if (isColumn(column)) result.push(turned(column));
    else result.push(...column);
    from = to;
  }
  // Where nothing stands in columns the spaces that were drawn tell where words end.
  return result.length === signs.length ? [...drawn] : result;
}

function goesDown(one: DrawnText, next: DrawnText): boolean {
  if (!SIGN.test(one.text) || !SIGN.test(next.text) || one.angle !== 0 || next.angle !== 0) return false;
  const size = Math.max(one.height, next.height);
  const down = next.y - one.y;
  return Math.abs(next.x - one.x) < STEP.aside * size && down > -STEP.up * size && down < STEP.down * size;
}

const isColumn = (signs: readonly DrawnText[]): boolean =>
  signs.length >= LEAST && signs.at(-1)!.y - signs[0]!.y > (signs.length - 1) * SHORTEST * signs[0]!.height;

function turned(signs: readonly DrawnText[]): DrawnText {
  const [left, top] = [Math.min(...signs.map(({ x }) => x)), Math.min(...signs.map(({ y }) => y))];
  const bottom = Math.max(...signs.map(({ y, height }) => y + height));
  const height = signs[0]!.height;
  return {
    ...{ text: signs.map(({ text }) => text).join(''), x: left + height, y: top },
    ...{ width: bottom - top, height, angle: 90 },
  };
}
