import { frequentWords } from './frequent-words.ts';
import { surfacesOf, termsOf } from './terms.ts';

/** A passage of a work with what stands around it. */
export interface Passage {
  before: string;
  passage: string;
  after: string;
}

/** A passage as detectors look at it, read once. */
export interface ReadPassage {
  text: string;
  before: string;
  after: string;
  /** The sentence around it, as far as its surroundings are known. */
  around: string;
  /** Its words, in small letters. */
  words: readonly string[];
  sentences: readonly string[];
  /** Stems of the words that not any text is full of. */
  stems: readonly string[];
  /** BCP 47. */
  language: string;
}

/** Ends a sentence; neither an initial nor a decimal point does. */
const SENTENCE = /(?<=[.!?…。！？]["”’)»]{0,5})\s+(?=\p{Lu}|["“‘(«\d]|[\p{Script=Han}\p{Script=Hiragana}])|\n+/gu;

export const sentencesOf = (text: string): string[] =>
  text
    .split(SENTENCE)
    .map((sentence) => sentence.trim())
    .filter((sentence) => sentence !== '');

/** @param language BCP 47 tag of the work */
export function readPassage({ before, passage, after }: Passage, language: string): ReadPassage {
  const text = passage.trim();
  const frequent = frequentWords(language);
  const stems = termsOf(text, language).flatMap(({ surface, stem }) => (frequent.has(surface) ? [] : [stem]));
  const around = `${sentencesOf(before).at(-1) ?? ''} ${text} ${sentencesOf(after)[0] ?? ''}`;
  return { text, before, after, around, words: surfacesOf(text), sentences: sentencesOf(text), stems, language };
}

/** How many matches of a pattern a text has. */
export const count = (text: string, pattern: RegExp): number => text.match(pattern)?.length ?? 0;
