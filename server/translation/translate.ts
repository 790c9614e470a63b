import { wellFormed } from '#core/text';
import type { Transcript } from '../../contract/transcripts.ts';
import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import type { Settings } from '../settings.ts';
import { hasAgreed } from '../speech/agreements.ts';
import { apertium } from './apertium.ts';
import { phraseList } from './phrase-list.ts';
import { translateServer } from './translate-server.ts';
import { TranslationError, type Translator } from './translator.ts';

/** The translators that this machine and its settings have, the best first. */
export const translatorsOf = ({ translateServer: server }: Settings): Translator[] =>
  [server && translateServer(server), apertium(), phraseList].filter((translator) => translator !== undefined);

interface Translated {
  text: string;
  source: 'machine';
  engine: string;
}

/** What was said, in another language. Words leave this server only for people who have agreed to it. */
export async function translateWords(
  db: Queries,
  translators: readonly Translator[],
  transcript: Transcript | null,
  language: string,
  person: string,
): Promise<Translated> {
  if (!transcript || transcript.text.trim() === '') throw problems.noTranslator();
  const agreed = await hasAgreed(db, person, 'translation server');
  for (const translator of translators) {
    if (translator.textGoesTo === 'another server' && !agreed) continue;
    if (!translator.knows(transcript.language, language)) continue;
    try {
      const text = await translator.translate(transcript.text, transcript.language, language);
      if (text !== undefined) return { text: wellFormed(text), source: 'machine', engine: translator.name };
    } catch (error) {
      if (error instanceof TranslationError) throw problems.translatorAway(error.message);
      throw error;
    }
  }
  throw problems.noTranslator();
}
