import type { DrawnLetter } from '#core/marked';
import { median } from 'd3-array';

/** Letters, each followed by a space: so many of them that nobody writes that. */
const SPREAD = /^(?:\S ){5,}\S?$/u;

/** Whether spaces were read between the letters of words, because they are set apart, as in many headings. */
export const isSpread = (text: string): boolean => SPREAD.test(text.trim());

/** So much wider than between two letters is the gap between two words, in heights of the letters. */
const WORD_GAP = 0.12;

/**
 * The words of a line whose letters are set apart, by the gaps between them.
 * @param height of its letters, in the unit of their places
 */
export function wordsOfLetters(letters: readonly DrawnLetter[], height: number): string {
  const drawn = letters.filter(({ text }) => text.trim() !== '').sort((a, b) => a.left - b.left);
  const gaps = drawn.slice(1).map(({ left }, index) => left - drawn[index]!.right);
  const usual = median(gaps) ?? 0;
  return drawn
    .map(({ text }, index) => (index > 0 && gaps[index - 1]! > usual + WORD_GAP * height ? ` ${text}` : text))
    .join('');
}
