/** How a list counts. */
export type Counting = 'decimal' | 'lowerLetter' | 'upperLetter' | 'lowerRoman' | 'upperRoman';

const ROMAN: readonly (readonly [value: number, letters: string])[] = [
  [1000, 'm'],
  [900, 'cm'],
  [500, 'd'],
  [400, 'cd'],
  [100, 'c'],
  [90, 'xc'],
  [50, 'l'],
  [40, 'xl'],
  [10, 'x'],
  [9, 'ix'],
  [5, 'v'],
  [4, 'iv'],
  [1, 'i'],
];

function roman(number: number): string {
  let left = number;
  let letters = '';
  for (const [value, symbol] of ROMAN) for (; left >= value; left -= value) letters += symbol;
  return letters;
}

/** a … z, then aa … zz as word processors count on: 27 is “aa”, 28 is “bb”. */
const letter = (number: number): string =>
  String.fromCharCode(97 + ((number - 1) % 26)).repeat(Math.floor((number - 1) / 26) + 1);

/** A number as a list writes it, e.g. 4 as `4`, `d`, `D`, `iv` or `IV`. */
export function listNumber(number: number, counting: Counting): string {
  if (counting === 'decimal' || number < 1 || number > 3999) return String(number);
  const letters = counting.endsWith('Roman') ? roman(number) : letter(number);
  return counting.startsWith('upper') ? letters.toUpperCase() : letters;
}

/** Bullets beyond the usual ones come from symbol fonts that nobody else has. */
export const bullet = (sign: string | undefined): string => (sign && /^[•◦▪‣⁃–—\-*○●■□→✓]$/u.test(sign) ? sign : '•');
