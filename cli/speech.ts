import { textOfWords, wordErrors, cuesOf, writeSrt, writeVtt, type Word, type WordErrors } from '#core/transcript';
import { readFile } from 'node:fs/promises';
import { z } from 'zod';
import { Transcript } from '../contract/transcripts.ts';
import { readSettings } from '../server/settings.ts';
import { engineHere, hear } from '../server/speech/hear.ts';
import { HOW_TO_GET_POCKETSPHINX } from '../server/speech/pocketsphinx.ts';
import { enginesOf } from '../server/speech/speech.ts';
import { speechThread, type SpeechThread } from '../server/speech/speech-thread.ts';

interface WithTimes {
  language: string;
  engine: string;
  text: string;
  words: Word[];
}

const withThread = async <T>(work: (thread: SpeechThread) => Promise<T>): Promise<T> => {
  const thread = speechThread();
  try {
    return await work(thread);
  } finally {
    await thread.stop();
  }
};

/** Said beside the answer, to a person only. */
const onProgress = (share: number): void =>
  void (process.stderr.isTTY && process.stderr.write(`\r${Math.round(share * 100)} % listened to `));

/** The words of a recording as the engine of this machine hears them. */
export async function transcribe(file: string, { language }: { language: string }): Promise<WithTimes> {
  const bytes = await readFile(file);
  const engine = engineHere(enginesOf(readSettings(process.env)), language);
  if (!engine && /^en\b/iu.test(language))
    throw new Error(`No speech engine is installed. Get one with: ${HOW_TO_GET_POCKETSPHINX}`);
  return withThread(async (thread) => {
    const { words, ...heard } = await hear(thread, engine, { bytes, mediaType: '', language, onProgress });
    return { language: heard.language, engine: heard.engine, text: textOfWords(words), words };
  });
}

/** When each word of a known text is said. */
export async function align(file: string, textFile: string, { language }: { language: string }): Promise<WithTimes> {
  const [bytes, text] = [await readFile(file), (await readFile(textFile, 'utf8')).trim()];
  return withThread(async (thread) => {
    const { words, approximate } = await thread.align(bytes, { text, language });
    return { language, engine: approximate ? 'shared out between pauses' : 'soundswallower', text, words };
  });
}

const WithWords = z.object({ language: z.string().optional(), words: Transcript.shape.words });

/** Captions of words with times. */
export async function captions(file: string, format: 'vtt' | 'srt'): Promise<string> {
  const { language, words } = WithWords.parse(JSON.parse(await readFile(file, 'utf8')));
  const cues = cuesOf(words);
  return format === 'vtt' ? writeVtt(cues, language) : writeSrt(cues);
}

export const wer = async (reference: string, hypothesis: string): Promise<WordErrors> =>
  wordErrors(await readFile(reference, 'utf8'), await readFile(hypothesis, 'utf8'));
