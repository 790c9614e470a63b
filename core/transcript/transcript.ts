/** One word and when it is said, in seconds from the start of the recording. */
export interface Word {
  word: string;
  start: number;
  end: number;
}

export type TranscriptSource = 'machine' | 'person' | 'bank';

export interface Transcript {
  /** BCP 47 tag of the language that is spoken. */
  language: string;
  text: string;
  /** Empty where only the text is known. */
  words: Word[];
  source: TranscriptSource;
}

/** The words that were said in full by a moment in seconds. */
export const wordsUntil = (words: readonly Word[], seconds: number): Word[] =>
  words.filter((word) => word.end <= seconds);

/** The words later by so many seconds. */
export const shiftWords = (words: readonly Word[], seconds: number): Word[] =>
  words.map(({ word, start, end }) => ({ word, start: start + seconds, end: end + seconds }));

export const textOfWords = (words: readonly Word[]): string => words.map(({ word }) => word).join(' ');
