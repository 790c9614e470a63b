import { shiftWords, textOfWords, wordsUntil, type Transcript } from '#core/transcript';
import { PRACTICE_SENTENCES } from '../../contract/practice.ts';
import type { NewSound } from '../../contract/sound.ts';

/**
 * What the practice microphone said into a recording. It needs no engine: it tells which of its sentences it speaks, and when;
 * only words that fit into the recording count. Undefined for every other microphone.
 */
export function practiceTranscript({ microphone, duration }: NewSound): Transcript | undefined {
  const sentence = microphone.type === 'practice' ? PRACTICE_SENTENCES[microphone.sentence] : undefined;
  if (microphone.type !== 'practice' || !sentence) return undefined;
  const words = wordsUntil(shiftWords(sentence.words, microphone.from), duration);
  if (words.length === 0) return undefined;
  const text = textOfWords(words);
  return {
    language: 'en',
    text,
    words,
    source: 'machine',
    engine: 'Practice microphone',
    approximate: false,
    read: false,
  };
}
