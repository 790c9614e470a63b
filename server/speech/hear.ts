import { wellFormedIn } from '#core/text';
import { areSpeech, inSentences, isPlausible, type Word } from '#core/transcript';
import { speechErrors } from './speech-error.ts';
import type { SpeechThread } from './speech-thread.ts';
import { knows, type Transcriber } from './transcriber.ts';

/** Below this share of voice, and this many seconds of it, a recording holds no speech. */
const LEAST_VOICE_SHARE = 0.03;
const LEAST_VOICE_SECONDS = 0.25;

export interface Recording {
  bytes: Uint8Array;
  mediaType: string;
  /** BCP 47 tag of what is probably spoken. */
  language: string;
  signal?: AbortSignal | undefined;
  onProgress?: ((share: number) => void) | undefined;
}

export interface HeardWords {
  language: string;
  engine: string;
  words: Word[];
  approximate: boolean;
}

/**
 * The words of a recording, in sentences and with times.
 * @param engine undefined where none knows the language
 * @throws SpeechError, also where nobody speaks
 */
export async function hear(
  thread: SpeechThread,
  engine: Transcriber | undefined,
  { bytes, mediaType, language, signal, onProgress }: Recording,
): Promise<HeardWords> {
  const { wav, duration, voice, stretches } = await thread.listen(bytes);
  if (voice < LEAST_VOICE_SECONDS || voice < duration * LEAST_VOICE_SHARE) throw speechErrors.nothingHeard();
  if (!engine) throw speechErrors.noEngine(language);
  const clip = { bytes, mediaType, wav, duration, stretches, language, signal, onProgress };
  const heard = wellFormedIn(await engine.transcribe(clip));
  if (!heard || heard.text.trim() === '') throw speechErrors.nothingHeard();
  const timed =
    heard.words.length > 0
      ? { words: heard.words.filter(isPlausible), approximate: false }
      : await thread.align(bytes, heard);
  const madeUp = heard.words.length > 0 && !areSpeech(timed.words, voice);
  if (timed.words.length === 0 || madeUp) throw speechErrors.nothingHeard();
  const words = inSentences(timed.words, heard.language);
  return { language: heard.language, engine: engine.name, words, approximate: timed.approximate };
}

/** The engine that keeps a recording on this machine, where one knows the language. */
export const engineHere = (engines: readonly Transcriber[], language: string): Transcriber | undefined =>
  engines.find((engine) => engine.soundGoesTo === 'this server' && knows(engine, language));
