import { spoken } from './token.ts';
import type { Word } from './transcript.ts';

/** Seconds that a word may take, and for each of its letters more: about three times as long as slow speech needs. */
const WORD = 0.6;
const LETTER = 0.15;

/** Whether anybody would say a word for so long. Engines make noise into words that are far too long. */
export const isPlausible = ({ word, start, end }: Word): boolean => end - start <= WORD + LETTER * spoken(word).length;

/** Share of the voice in a recording that its words take at the least; speech has about 0.95, music made into words 0.4. */
const LEAST_SPOKEN = 0.5;

/**
 * Whether words are what a recording consists of. Engines make music into a few words that are far apart.
 * @param voice seconds in which somebody, or something, is heard
 */
export const areSpeech = (words: readonly Word[], voice: number): boolean =>
  words.reduce((seconds, { start, end }) => seconds + end - start, 0) >= voice * LEAST_SPOKEN;
