import { withoutEnds } from '../text/index.ts';
/** One word as it stands in a text, with its punctuation, and where; offsets in UTF-16 units. */
export interface Token {
  text: string;
  start: number;
  end: number;
}

/** The words of a text, as spaces part them; a dash that stands alone belongs to the word before. */
export function tokens(text: string): Token[] {
  const found: Token[] = [];
  for (const match of text.matchAll(/\S+/gu)) {
    const token = { text: match[0], start: match.index, end: match.index + match[0].length };
    const before = found.at(-1);
    if (spoken(token.text) !== '' || !before) found.push(token);
    else found[found.length - 1] = { text: text.slice(before.start, token.end), start: before.start, end: token.end };
  }
  return found;
}

/**
 * What is said of a word: lower case, without punctuation; apostrophes and hyphens inside of it stay.
 * `“Look,` → `look`, `it’s` → `it's`.
 */
export const spoken = (word: string): string => (PLAIN.test(word) ? word : withoutMarks(word));

/** Most words are as they are said already. */
const PLAIN = /^[a-z]+$/u;

const withoutMarks = (word: string): string =>
  withoutEnds(
    word
      .normalize('NFC')
      .toLowerCase()
      .replaceAll('’', "'")
      .replace(/[^\p{L}\p{M}\p{N}'-]+/gu, ''),
    /['-]/u,
  );

/** Letters alone, without accents: for finding a word that somebody heard rather than read. */
export const folded = (word: string): string =>
  spoken(word)
    .normalize('NFD')
    .replace(/[^\p{L}\p{N}]+/gu, '');
