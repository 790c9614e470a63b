import { Router } from 'express';
import {
  agreeToPlace,
  readSpeechSettings,
  setCourseLanguage,
  setOwnLanguage,
  type SpeechSettings,
} from '../../contract/speech.ts';
import type { Context } from '../context.ts';
import { serve } from '../http/serve.ts';
import { HOW_TO_GET_APERTIUM } from '../translation/apertium.ts';
import { putAgreement, selectAgreements } from '../speech/agreements.ts';
import { ALIGNED_LANGUAGES } from '../speech/aligned-languages.ts';
import { HOW_TO_GET_POCKETSPHINX } from '../speech/pocketsphinx.ts';
import { selectCourseLanguages, selectOwnLanguage, updateCourseLanguage, updateOwnLanguage } from './queries.ts';

/** What listens and translates here, and what a teacher settles about it. */
export function languageRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  const settingsOf = async (person: string): Promise<SpeechSettings> => ({
    engines: context.speech.engines.map(({ name, languages, wordTimes, soundGoesTo }) => ({
      ...{ name, wordTimes, soundGoesTo },
      languages: languages ? [...languages] : null,
    })),
    translators: context.translators.map(({ name, textGoesTo }) => ({ name, textGoesTo })),
    aligned: [...ALIGNED_LANGUAGES],
    missing: missing(context),
    agreements: await selectAgreements(db, person),
    language: await selectOwnLanguage(db, person),
    courses: await selectCourseLanguages(db, person),
  });

  serve(router, context, readSpeechSettings, 'own', ({ person }) => settingsOf(person.id));

  serve(router, context, agreeToPlace, 'own', async ({ body, person }) => {
    await putAgreement(db, person.id, body.place, body.agreed);
    return settingsOf(person.id);
  });

  serve(router, context, setOwnLanguage, 'own', async ({ body, person }) => {
    await updateOwnLanguage(db, person.id, body.language);
    return settingsOf(person.id);
  });

  serve(router, context, setCourseLanguage, 'course.set', async ({ params, body, person }) => {
    await updateCourseLanguage(db, params.course, body.language);
    return settingsOf(person.id);
  });

  return router;
}

function missing({ speech, translators, settings }: Context): SpeechSettings['missing'] {
  const listensHere = speech.engines.some(({ soundGoesTo }) => soundGoesTo === 'this server');
  const candidates = [
    !listensHere && {
      name: 'Dictation on this server, without network (PocketSphinx)',
      how: settings.dictation ? HOW_TO_GET_POCKETSPHINX : 'VIVID_DICTATION=true',
    },
    !settings.speechServer && {
      name: 'A speech server of the school’s own',
      how: 'VIVID_SPEECH_SERVER=https://… and, where it asks for one, VIVID_SPEECH_KEY=…',
    },
    !settings.translateServer && {
      name: 'A translation server of the school’s own',
      how: 'VIVID_TRANSLATE_SERVER=https://… and, where it asks for one, VIVID_TRANSLATE_KEY=…',
    },
    !translators.some(({ name }) => name === 'Apertium') && {
      name: 'Translation on this server, without network (Apertium)',
      how: HOW_TO_GET_APERTIUM,
    },
  ];
  return candidates.filter((candidate) => candidate !== false);
}
