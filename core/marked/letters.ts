/** A letter, ligature or space as a page draws it; its edges lie along its line, in points. */
export interface DrawnLetter {
  text: string;
  left: number;
  right: number;
}

/** From one edge of a stretch of a line to the other, in points along it. */
export type Stretch = readonly [left: number, right: number];

/** So much of a text must be found among the letters drawn before they are trusted. */
const ENOUGH = 0.9;
/** How many letters may be missing on either side before the two are said to differ. */
const AHEAD = 6;

/**
 * Where a part of a line is drawn: from the edge of its first letter to the edge of its last, in one stretch for each
 * run that stands together (text of both directions is drawn in several).
 * @param letters of the line, in any order
 * @param from,to UTF-16 offsets into `text`
 * @returns nothing where the letters drawn are not those of the text
 */
export function stretchesOf(
  text: string,
  letters: readonly DrawnLetter[],
  { from, to }: { from: number; to: number },
): Stretch[] | undefined {
  const drawn = letters.filter(({ text }) => text.trim() !== '').sort((a, b) => a.left - b.left);
  const backwards = [...drawn].reverse();
  for (const order of [drawn, backwards, withForwardRuns(backwards)]) {
    const pairs = pairsOf(text, order);
    if (!pairs) continue;
    const wanted = new Set(pairs.filter(({ at }) => at >= from && at < to).map(({ letter }) => letter));
    return runsOf(drawn, wanted);
  }
  return undefined;
}

/** Left to right inside of what is otherwise read from right to left: Latin words and numbers. */
function withForwardRuns(letters: readonly DrawnLetter[]): DrawnLetter[] {
  const forward = ({ text }: DrawnLetter): boolean => /[\p{Script=Latin}\p{N}]/u.test(text);
  const result: DrawnLetter[] = [];
  for (let at = 0; at < letters.length;) {
    let end = at + 1;
    if (forward(letters[at]!)) while (end < letters.length && forward(letters[end]!)) end++;
    result.push(...letters.slice(at, end).reverse());
    at = end;
  }
  return result;
}

interface Unit {
  sign: string;
  at: number;
}

/** Each letter of a text with the one that draws it; both are compared in compatible normal form (Unicode, annex 15). */
function pairsOf(text: string, letters: readonly DrawnLetter[]): { at: number; letter: DrawnLetter }[] | undefined {
  const written = unitsOf(text);
  const drawn = letters.flatMap((letter) => unitsOf(letter.text).map(({ sign }) => ({ sign, letter })));
  const pairs: { at: number; letter: DrawnLetter }[] = [];
  for (let i = 0, j = 0; i < written.length && j < drawn.length;) {
    const [skipped, added] = nextMatch(written, drawn, i, j);
    i += skipped;
    j += added;
    if (i < written.length && j < drawn.length && written[i]!.sign === drawn[j]!.sign)
      pairs.push({ at: written[i]!.at, letter: drawn[j]!.letter });
    i++;
    j++;
  }
  return written.length > 0 && pairs.length >= written.length * ENOUGH ? pairs : undefined;
}

function unitsOf(text: string): Unit[] {
  const units: Unit[] = [];
  let at = 0;
  for (const character of text) {
    for (const sign of character.normalize('NFKC').replace(/\s/gu, '')) units.push({ sign, at });
    at += character.length;
  }
  return units;
}

/** How far to go on in both until they agree again. */
function nextMatch(
  written: readonly Unit[],
  drawn: readonly { sign: string }[],
  i: number,
  j: number,
): [skipped: number, added: number] {
  for (let far = 0; far <= AHEAD; far++)
    for (let skipped = 0; skipped <= far; skipped++) {
      const sign = written[i + skipped]?.sign;
      if (sign !== undefined && sign === drawn[j + far - skipped]?.sign) return [skipped, far - skipped];
    }
  return [0, 0];
}

function runsOf(drawn: readonly DrawnLetter[], wanted: ReadonlySet<DrawnLetter>): Stretch[] {
  const runs: [number, number][] = [];
  let open = false;
  for (const letter of drawn) {
    const run = runs.at(-1);
    if (!wanted.has(letter)) open = false;
    else if (open && run) run[1] = Math.max(run[1], letter.right);
    else {
      runs.push([letter.left, letter.right]);
      open = true;
    }
  }
  return runs;
}
