import { spoken } from './token.ts';
import type { Word } from './transcript.ts';

/** Seconds that a word may take, and for each of its letters more: about three times as long as slow speech needs. */
const WORD = 0.6;
const LETTER = 0.15;

/** Whether anybody would say a word for so long. Engines make noise into words that are far too long. */
export const isPlausible = ({ word, start, end }: Word): boolean => end - start <= WORD + LETTER * spoken(word).length;
