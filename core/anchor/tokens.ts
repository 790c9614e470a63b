/** A text as words, each with its place, the sentence it belongs to, and a number that is the same for words that count as equal. */
export interface Words {
  text: string;
  /** Equal words have equal numbers, across all texts that were read with the same {@link Lexicon}. */
  ids: Int32Array;
  starts: Int32Array;
  ends: Int32Array;
  /** Index of the sentence of each word. */
  sentences: Int32Array;
  sentenceCount: number;
  /** Index of the line of each word: a paragraph, a heading, an entry of a list. */
  lines: Int32Array;
}

/** Numbers for words. Case, accents' composition, hyphens and apostrophes inside of words make no difference. */
export class Lexicon {
  readonly #numbers = new Map<string, number>();
  readonly #asWritten = new Map<string, number>();

  number(word: string): number {
    const known = this.#asWritten.get(word);
    if (known !== undefined) return known;
    const key = word.normalize('NFKC').toLowerCase().replace(JOINER, '');
    const number = this.#numbers.get(key) ?? this.#numbers.size;
    this.#numbers.set(key, number);
    this.#asWritten.set(word, number);
    return number;
  }
}

/** Scripts that are written without spaces: there each character counts as a word. */
const UNSPACED = /[\p{sc=Han}\p{sc=Hiragana}\p{sc=Katakana}\p{sc=Thai}\p{sc=Lao}\p{sc=Khmer}\p{sc=Myanmar}]/u;
const LETTER = /[\p{L}\p{N}\p{M}]/u;
const MARK = /\p{M}/u;
/** Apostrophes, hyphens and the soft hyphen hold a word together. */
const JOINERS = /['’‐‑\-\u00ad]/;
const JOINER = new RegExp(JOINERS, 'g');
const SENTENCE_END = /[.!?…。！？;:]/;
/** A stop between figures (“3.5”) ends nothing: what follows must be white space. */
const SENTENCE_BREAK = /[.!?…]["'”’»)\]]*\s|[。！？]/;
const LOWER_CASE = /^\p{Ll}/u;
/** Nobody breaks a line for want of room before it has this many characters. */
const BROKEN_LINE = 50;

/**
 * Reads a text into words, sentences and lines.
 * @param items UTF-16 offsets at which entries of lists begin: each is a line, whatever it begins with
 */
export function wordsOf(text: string, lexicon: Lexicon, items: ReadonlySet<number> = new Set()): Words {
  const ids: number[] = [];
  const starts: number[] = [];
  const ends: number[] = [];
  const sentences: number[] = [];
  const lines: number[] = [];
  let sentence = 0;
  let line = 0;
  let lineStart = 0;
  let last = 0;
  for (let at = 0; at < text.length;) {
    const end = wordEnd(text, at);
    if (end === at) {
      at++;
      continue;
    }
    const word = text.slice(at, end);
    // Most words stand one space behind the other.
    if (ids.length > 0 && (at - last > 1 || text[last] === '\n')) {
      const between = text.slice(last, at);
      const end = last + between.lastIndexOf('\n');
      const endsLine = end >= last && (items.has(end + 1) || !isBroken(last - lineStart, between, word));
      if (endsLine) line++;
      if (end >= last) lineStart = end + 1;
      if (endsLine || SENTENCE_BREAK.test(between)) sentence++;
    }
    ids.push(lexicon.number(word));
    starts.push(at);
    ends.push(end);
    sentences.push(sentence);
    lines.push(line);
    at = last = end;
  }
  return {
    text,
    ids: Int32Array.from(ids),
    starts: Int32Array.from(starts),
    ends: Int32Array.from(ends),
    sentences: Int32Array.from(sentences),
    sentenceCount: ids.length > 0 ? sentence + 1 : 0,
    lines: Int32Array.from(lines),
  };
}

/** A long line that goes on with a small letter was only broken there. */
const isBroken = (length: number, between: string, word: string): boolean =>
  length >= BROKEN_LINE && LOWER_CASE.test(word) && !SENTENCE_END.test(between);

const OTHER = 1;
const LETTER_SIGN = 2;
const MARK_SIGN = 3;
const UNSPACED_SIGN = 4;
const JOINER_SIGN = 5;

/** What each code unit is; 0 where nobody asked yet. */
const known = new Uint8Array(0x10000);

function signAt(text: string, at: number): number {
  const code = text.charCodeAt(at);
  const sign = known[code]!;
  if (sign !== 0) return sign;
  // The two halves of a character beyond the first plane are looked at together.
  if (code >= 0xd800 && code < 0xdc00) return signOf(String.fromCodePoint(text.codePointAt(at)!));
  return (known[code] = signOf(text.charAt(at)));
}

function signOf(character: string): number {
  if (UNSPACED.test(character)) return UNSPACED_SIGN;
  if (MARK.test(character)) return MARK_SIGN;
  if (LETTER.test(character)) return LETTER_SIGN;
  return JOINERS.test(character) ? JOINER_SIGN : OTHER;
}

const unitsAt = (text: string, at: number): number => (text.codePointAt(at)! > 0xffff ? 2 : 1);

/** Where the word that begins at an offset ends; the offset itself where none begins. */
function wordEnd(text: string, start: number): number {
  const first = signAt(text, start);
  if (first === OTHER || first === JOINER_SIGN) return start;
  let at = start + unitsAt(text, start);
  if (first === UNSPACED_SIGN) {
    while (at < text.length && signAt(text, at) === MARK_SIGN) at += unitsAt(text, at);
    return at;
  }
  while (at < text.length) {
    const sign = signAt(text, at);
    if (sign === LETTER_SIGN || sign === MARK_SIGN) at += unitsAt(text, at);
    else if (sign === JOINER_SIGN && at + 1 < text.length && signAt(text, at + 1) === LETTER_SIGN) at++;
    else break;
  }
  return at;
}

/** The words that lie, at least partly, between two offsets: from `from` up to but not including `to`. */
export function wordRange({ starts, ends }: Words, start: number, end: number): { from: number; to: number } {
  return { from: firstAbove(ends, start), to: firstAbove(starts, end - 1) };
}

/** The first index whose value is greater than `limit`, by halving. */
function firstAbove(values: Int32Array, limit: number): number {
  let low = 0;
  let high = values.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (values[middle]! > limit) high = middle;
    else low = middle + 1;
  }
  return low;
}
