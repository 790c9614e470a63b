/** One word and when it is said, in seconds from the start of the recording. */
export interface Word {
  word: string;
  start: number;
  end: number;
  /** How sure an engine is that it heard this word, 0 to 1; absent where nobody doubts it. */
  confidence?: number | undefined;
}

export type TranscriptSource = 'machine' | 'person' | 'bank';

export interface Transcript {
  /** BCP 47 tag of the language that is spoken. */
  language: string;
  text: string;
  /** Empty where only the text is known. */
  words: Word[];
  source: TranscriptSource;
  /** What made it, in words for people; empty where a person typed it. */
  engine: string;
  /** The times are shared out between pauses instead of measured. */
  approximate: boolean;
  /** Somebody has read it, or wrote it. A machine's transcript is a draft until then. */
  read: boolean;
}

/** A machine's transcript that nobody has read. */
export const isDraft = ({ source, read }: Pick<Transcript, 'source' | 'read'>): boolean =>
  source === 'machine' && !read;

/** Below this a word is marked: eight of ten words that PocketSphinx hears wrongly from a synthetic voice, and three of ten others. */
const DOUBT = 0.7;

export const isDoubtful = ({ confidence }: Word): boolean => confidence !== undefined && confidence < DOUBT;

/** The words that were said in full by a moment in seconds. */
export const wordsUntil = (words: readonly Word[], seconds: number): Word[] =>
  words.filter((word) => word.end <= seconds);

/** The words of a stretch, in seconds: those whose middle lies in it. */
export const wordsWithin = (words: readonly Word[], { start, end }: { start: number; end: number }): Word[] =>
  words.filter((word) => (word.start + word.end) / 2 >= start && (word.start + word.end) / 2 < end);

/** The words later by so many seconds. */
export const shiftWords = (words: readonly Word[], seconds: number): Word[] =>
  words.map((word) => ({ ...word, start: word.start + seconds, end: word.end + seconds }));

export const textOfWords = (words: readonly Word[]): string => words.map(({ word }) => word).join(' ');

/** The position of the word that is said at a moment, or was said last before it; −1 before the first. */
export function wordAt(words: readonly Word[], seconds: number): number {
  let [low, high] = [0, words.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (words[middle]!.start <= seconds) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}
