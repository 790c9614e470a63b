import type { DrawnText } from './page-text.ts';

const ACCENTS = /^\s*\p{M}+\s*$/u;
/** A letter with its accents. */
const LETTERS = /\P{M}\p{M}*/gu;
/** How many pieces away the letter of an accent may have been drawn, and how far in its heights. */
const NEAR = { pieces: 8, heights: 0.6 };

/**
 * Accents that were drawn by themselves stand with the letter that they were drawn over (Unicode Standard, section 2.11): a space beside
 * it may have been drawn in between.
 */
export function withAccents(drawn: readonly DrawnText[]): DrawnText[] {
  if (!drawn.some(({ text }) => ACCENTS.test(text))) return [...drawn];
  const texts = drawn.map(({ text }) => text);
  const gone = new Set<number>();
  drawn.forEach((accent, index) => {
    if (!ACCENTS.test(accent.text)) return;
    const owner = nearest(drawn, index);
    if (owner === undefined) return;
    texts[owner] = withAccent(drawn[owner]!, texts[owner]!, accent);
    gone.add(index);
  });
  return drawn.flatMap((one, index) => (gone.has(index) ? [] : [{ ...one, text: texts[index]! }]));
}

function nearest(drawn: readonly DrawnText[], index: number): number | undefined {
  const { x, width, y, height, angle } = drawn[index]!;
  const middle = x + width / 2;
  let found: { at: number; far: number } | undefined;
  for (let at = Math.max(0, index - NEAR.pieces); at <= Math.min(drawn.length - 1, index + NEAR.pieces); at++) {
    const one = drawn[at]!;
    const level = Math.abs(one.y - y) < height && one.angle === angle;
    if (!level || !/\p{L}/u.test(one.text)) continue;
    const far = Math.max(0, one.x - middle, middle - one.x - one.width);
    if (far <= NEAR.heights * height && (!found || far < found.far)) found = { at, far };
  }
  return found?.at;
}

/** Behind the letter below it; the letters of a piece are taken as equally wide, from its right where the accent is Arabic. */
function withAccent({ x, width }: DrawnText, text: string, accent: DrawnText): string {
  const letters = text.match(LETTERS) ?? [];
  const share = width > 0 ? (accent.x + accent.width / 2 - x) / width : 0;
  const along = /\p{Script=Latin}|\p{Script=Greek}|\p{Script=Cyrillic}/u.test(text) ? share : 1 - share;
  const last = letters.findLastIndex((letter) => letter.trim() !== '');
  const at = Math.min(last, Math.max(0, Math.floor(along * letters.length)));
  return letters.map((letter, index) => (index === at ? letter + accent.text.trim() : letter)).join('');
}
