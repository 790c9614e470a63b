import type { Part } from './page-text.ts';

/** Hebrew, Arabic, Syriac, Thaana, N'Ko and their presentation forms (Unicode Standard, bidirectional classes R and AL). */
const RIGHT_TO_LEFT = /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufefc]/gu;
const LETTER = /\p{L}/gu;

/** Whether most letters are of a script that is read from right to left. */
export function isRightToLeft(text: string): boolean {
  const letters = text.match(LETTER)?.length ?? 0;
  return letters > 0 && 2 * (text.match(RIGHT_TO_LEFT)?.length ?? 0) > letters;
}

/** Arabic presentation forms and ligatures (Unicode Standard, U+FB50 to U+FDFF and U+FE70 to U+FEFF). */
const PRESENTATION_FORM = /[\ufb50-\ufdff\ufe70-\ufefc]+/gu;
const MIRRORED = new Map([...'()[]{}<>«»‹›'].map((sign, at, all) => [sign, all[at % 2 === 0 ? at + 1 : at - 1]!]));
const BRACKET = /[()[\]{}<>«»‹›]/gu;
/** Brackets inside left-to-right words, as in `f(x)`, after they were mirrored with the rest. */
const TURNED_WRONGLY = /(?<=[\p{Script=Latin}\p{N}])[)\]}>][\p{Script=Latin}\p{N} ,.+-]{0,200}[([{<]/gu;

/** The presentation form of an accent is a space with the accent on it. */
const SPACED_ACCENT = /[ \u00a0](?=\p{M})/gu;

const mirrored = (text: string): string => text.replace(BRACKET, (sign) => MIRRORED.get(sign)!);

/**
 * The text in logical form: plain Arabic letters instead of presentation forms, and brackets of right-to-left text mirrored back, because
 * a PDF draws them mirrored (Unicode Standard Annex #9, rule L4).
 */
export function asWritten(text: string): string {
  const letters = text.replace(PRESENTATION_FORM, (forms) => forms.normalize('NFKC'));
  if (!isRightToLeft(letters)) return letters;
  return mirrored(letters).replace(TURNED_WRONGLY, mirrored).replace(SPACED_ACCENT, '');
}

/** Signs that were drawn apart from any letter, in a line that runs from right to left: they were drawn from its left. */
const isNeutral = (text: string): boolean => !/[\p{L}\p{N}\p{M}]/u.test(text);
const reversed = (text: string): string => [...text].reverse().join('');

/** How many brackets of a text are closed after they were opened, less those that are not. */
function nesting(text: string): number {
  const open: string[] = [];
  let pairs = 0;
  for (const [sign] of text.matchAll(BRACKET)) {
    if ('([{<«‹'.includes(sign)) open.push(sign);
    else if (open.at(-1) === MIRRORED.get(sign)) pairs += Number(open.pop() !== undefined);
    else pairs--;
  }
  return pairs - open.length;
}

/**
 * Some programs write the brackets of right-to-left text into a PDF as they are drawn, others as they are meant: whichever way those of
 * a page close each other.
 * @param lines of a page, each in the order in which it is read
 */
export function withBrackets(lines: readonly Part[][]): Part[][] {
  const backwards = (parts: readonly Part[]): boolean => isRightToLeft(textOf(parts));
  const turned = lines.map((parts) =>
    backwards(parts)
      ? parts.map((part) => (isNeutral(part.text) ? { ...part, text: mirrored(part.text) } : part))
      : parts,
  );
  const brackets = (all: readonly Part[][]): number => nesting(all.filter(backwards).map(textOf).join(''));
  return brackets(lines) > brackets(turned) ? [...lines] : turned;
}
const textOf = (parts: readonly Part[]): string => parts.map(({ text }) => text).join('');

/**
 * The parts of a line in the order in which they are read. A page may draw a line of Hebrew or Arabic from either side; numbers
 * and words of other scripts within it are read from left to right among themselves (Unicode Standard Annex #9).
 */
export function spokenOrder(parts: Part[]): Part[] {
  if (!isRightToLeft(textOf(parts))) return parts.map(withSpace);
  const sorted = [...parts].sort((a, b) => b.right - a.right);
  const ordered: Part[] = [];
  let leftToRight: Part[] = [];
  for (const part of sorted) {
    if (!isRightToLeft(part.text) && /[\p{L}\p{N}]/u.test(part.text)) {
      leftToRight.unshift(part);
      continue;
    }
    ordered.push(...leftToRight, isNeutral(part.text) ? { ...part, text: reversed(part.text) } : part);
    leftToRight = [];
  }
  return [...ordered, ...leftToRight];
}

/** A space that was drawn by itself belongs to the word before it; where lines run both ways, only its gap tells where it is. */
const withSpace = (part: Part): Part =>
  part.spaced && !/\s$/.test(part.text) ? { ...part, text: `${part.text} ` } : part;

const UNSPACED_END = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\u3000-\u303f\uff01-\uff60\u30fc]$/u;
const UNSPACED_BEGIN = /^[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\u3000-\u303f\uff01-\uff60\u30fc]/u;

/** Whether nothing stands between two pieces of Chinese or Japanese, also where a line ends between them. */
export const touchesWithoutSpace = (one: string, next: string): boolean =>
  UNSPACED_END.test(one.trimEnd()) && UNSPACED_BEGIN.test(next.trimStart());
