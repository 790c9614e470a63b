import type { Word } from './transcript.ts';

/** Seconds of silence that end a sentence when no punctuation was heard. */
export const SENTENCE_PAUSE = 0.45;

/**
 * Bare words as they come from an engine that hears no punctuation, set into sentences: a full stop at each longer pause and
 * at the end, a capital after it. What carries punctuation already is left as it is.
 * @param language BCP 47; English sets the word I in capitals
 */
export function inSentences(words: readonly Word[], language: string, pause = SENTENCE_PAUSE): Word[] {
  if (words.some(({ word }) => /[.!?]$/u.test(word))) return [...words];
  const english = /^en\b/i.test(language);
  return words.map((word, index) => {
    const [before, after] = [words[index - 1], words[index + 1]];
    const begins = !before || word.start - before.end >= pause;
    const ends = !after || after.start - word.end >= pause;
    let text = english && /^i(?:$|')/u.test(word.word) ? `I${word.word.slice(1)}` : word.word;
    if (begins) text = capital(text, language);
    return { ...word, word: ends ? `${text}.` : text };
  });
}

const capital = (word: string, language: string): string => {
  const [first = ''] = word;
  return first.toLocaleUpperCase(language) + word.slice(first.length);
};
