import { shiftWords, textOfWords, wordsUntil } from '#core/transcript';
import { PRACTICE_SENTENCES } from '../../contract/practice.ts';
import type { Transcriber } from './transcriber.ts';

/**
 * The stand-in that ships with the app. It hears nothing: it knows what the practice microphone says, and when, and answers
 * with the words that fit into the recording. For every other recording it has no transcript.
 */
export const practiceTranscriber: Transcriber = {
  name: 'Practice',
  languages: ['en'],
  wordTimes: true,
  soundGoesTo: 'this server',
  transcribe({ microphone, duration }) {
    const sentence = microphone.type === 'practice' ? PRACTICE_SENTENCES[microphone.sentence] : undefined;
    if (microphone.type !== 'practice' || !sentence) return Promise.resolve(undefined);
    const words = wordsUntil(shiftWords(sentence.words, microphone.from), duration);
    if (words.length === 0) return Promise.resolve(undefined);
    return Promise.resolve({ language: 'en', text: textOfWords(words), words, source: 'machine' });
  },
};
