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
const UNSPACED = '\\p{sc=Han}\\p{sc=Hiragana}\\p{sc=Katakana}\\p{sc=Thai}\\p{sc=Lao}\\p{sc=Khmer}\\p{sc=Myanmar}';
const HAS_UNSPACED = new RegExp(`[${UNSPACED}]`, 'u');
const JOINERS = "'’‐‑\\-\\u00ad";
const LETTERS = '\\p{L}\\p{N}\\p{M}';
const SPACED_WORD = new RegExp(`[${LETTERS}]+(?:[${JOINERS}][${LETTERS}]+)*`, 'gu');
const ANY_WORD = new RegExp(
  `[${UNSPACED}]\\p{M}*|(?:(?![${UNSPACED}])[${LETTERS}])+(?:[${JOINERS}](?:(?![${UNSPACED}])[${LETTERS}])+)*`,
  'gu',
);
const JOINER = new RegExp(`[${JOINERS}]`, 'gu');
const SENTENCE_END = /[.!?…。！？\n]/;
/** A stop between figures (“3.5”) ends nothing: what follows must be white space. */
const SENTENCE_BREAK = /[.!?…]["'”’»)\]]*\s|[。！？]/;
const LOWER_CASE = /^\p{Ll}/u;

/** Reads a text into words and sentences. */
export function wordsOf(text: string, lexicon: Lexicon): Words {
  const ids: number[] = [];
  const starts: number[] = [];
  const ends: number[] = [];
  const sentences: number[] = [];
  let sentence = 0;
  let last = 0;
  for (const match of text.matchAll(HAS_UNSPACED.test(text) ? ANY_WORD : SPACED_WORD)) {
    const word = match[0];
    const between = text.slice(last, match.index);
    if (ids.length > 0 && SENTENCE_END.test(between) && endsSentence(between, word)) sentence++;
    ids.push(lexicon.number(word));
    starts.push(match.index);
    ends.push((last = match.index + word.length));
    sentences.push(sentence);
  }
  return {
    text,
    ids: Int32Array.from(ids),
    starts: Int32Array.from(starts),
    ends: Int32Array.from(ends),
    sentences: Int32Array.from(sentences),
    sentenceCount: ids.length > 0 ? sentence + 1 : 0,
  };
}

/** A line that goes on with a small letter was only broken there. */
const endsSentence = (between: string, word: string): boolean =>
  SENTENCE_BREAK.test(between) || (between.includes('\n') && !LOWER_CASE.test(word));

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
