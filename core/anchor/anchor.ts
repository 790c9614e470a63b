/** W3C Web Annotation TextQuoteSelector: the words themselves with what stands before and after them. */
export interface Quote {
  exact: string;
  prefix: string;
  suffix: string;
}

/**
 * Words of the canonical text: W3C Web Annotation TextPositionSelector together with TextQuoteSelector
 * (https://www.w3.org/TR/annotation-model/#selectors). Offsets are UTF-16 units, `end` exclusive.
 */
export interface PassageAnchor {
  type: 'passage';
  start: number;
  end: number;
  quote: Quote;
}

/** A box on a page, slide or picture, as fractions of its size: W3C Media Fragments 1.0, `xywh=percent:`. */
export interface RegionAnchor {
  type: 'region';
  leaf: number;
  x: number;
  y: number;
  width: number;
  height: number;
}

/** A stretch of a recording in seconds, `end` exclusive: W3C Media Fragments 1.0, `t=`. */
export interface SpanAnchor {
  type: 'span';
  leaf: number;
  start: number;
  end: number;
}

/** Cells of a table, counted from 0, the last ones included: RFC 7111 counts them from 1. */
export interface CellsAnchor {
  type: 'cells';
  leaf: number;
  top: number;
  left: number;
  bottom: number;
  right: number;
}

/** The answer to one question. */
export interface AnswerAnchor {
  type: 'answer';
  question: string;
}

/** The work as a whole. */
export interface WholeAnchor {
  type: 'whole';
}

export type Anchor = PassageAnchor | RegionAnchor | SpanAnchor | CellsAnchor | AnswerAnchor | WholeAnchor;

/** How much text is kept before and after a passage, in UTF-16 units. */
export const CONTEXT_LENGTH = 32;

/**
 * The anchor of the words between two offsets, without white space at either end and never through the middle of a character.
 * @returns undefined where there is nothing but white space
 * @throws RangeError where the offsets lie outside of the text
 */
export function passageAnchor(text: string, start: number, end: number): PassageAnchor | undefined {
  if (!Number.isInteger(start) || !Number.isInteger(end) || start < 0 || end > text.length || start > end)
    throw new RangeError(`No passage ${start}–${end} in a text of ${text.length} units`);
  const whole = { start: characterStart(text, start), end: characterEnd(text, end) };
  const chosen = text.slice(whole.start, whole.end);
  const exact = chosen.trim();
  if (exact === '') return undefined;
  const from = whole.start + chosen.indexOf(exact);
  const to = from + exact.length;
  return {
    type: 'passage',
    start: from,
    end: to,
    quote: {
      exact,
      prefix: text.slice(characterEnd(text, Math.max(0, from - CONTEXT_LENGTH)), from),
      suffix: text.slice(to, characterStart(text, Math.min(text.length, to + CONTEXT_LENGTH))),
    },
  };
}

const splitsCharacter = (text: string, offset: number): boolean =>
  offset > 0 && /^[\uDC00-\uDFFF]/.test(text.charAt(offset)) && /^[\uD800-\uDBFF]/.test(text.charAt(offset - 1));

const characterStart = (text: string, offset: number): number => (splitsCharacter(text, offset) ? offset - 1 : offset);
const characterEnd = (text: string, offset: number): number => (splitsCharacter(text, offset) ? offset + 1 : offset);
