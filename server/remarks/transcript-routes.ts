import {
  cuesOf,
  isDraft,
  looksLikeCaptions,
  readCues,
  textOfWords,
  translatedWords,
  wordsOfCues,
  writeSrt,
  writeVtt,
} from '#core/transcript';
import { Router } from 'express';
import {
  importCaptions,
  listenAgain,
  mendTranscript,
  readSpeech,
  readTranscriptStates,
  setTranslation,
  type Remark,
  type Transcript,
} from '../../contract/remarks.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve, serveBytes } from '../http/serve.ts';
import { queueJob, selectJobs } from '../speech/jobs.ts';
import { selectSpokenLanguage } from '../speech/spoken-language.ts';
import { translateRemark } from '../translation/translate.ts';
import { selectRemark, selectRemarkPlace } from './queries.ts';
import { mended, putTranscript, putTranslation, selectStates, selectTranscript } from './transcripts.ts';

/** Aligning a usual remark takes some tenths of a second; a longer one comes later. */
const ALIGN_MILLISECONDS = 900;

const TYPES = { vtt: 'text/vtt', srt: 'application/x-subrip', json: 'application/json' } as const;

/** The words of remarks: mended, listened to again, translated, in and out as captions. */
export function transcriptRoutes(context: Context): Router {
  const router = Router();
  const { db, speech } = context;

  async function found(id: string): Promise<Remark> {
    const remark = await selectRemark(db, id);
    if (!remark) throw problems.notFound();
    return remark;
  }

  async function keep(remark: string, transcript: Transcript, person: string): Promise<Remark> {
    const queued = await db.transaction(async (tx) => {
      const before = await selectTranscript(tx, remark);
      await putTranscript(tx, remark, transcript, person);
      const differs = before?.text !== transcript.text || before.language !== transcript.language;
      if (!differs || transcript.text.trim() === '') return false;
      await queueJob(tx, remark, 'align', transcript.language);
      return true;
    });
    if (queued) {
      const ended = speech.queue.ended(remark, ALIGN_MILLISECONDS);
      speech.queue.wake('align');
      await ended;
    }
    return found(remark);
  }

  serve(router, context, mendTranscript, 'transcript.mend', async ({ params, body, person }) => {
    const { sound } = await found(params.remark);
    if (!sound) throw problems.soundEmpty();
    const before = await selectTranscript(db, params.remark);
    return keep(params.remark, mended(before, body, sound.duration), person.id);
  });

  serve(router, context, importCaptions, 'transcript.mend', async ({ params, body, person }) => {
    const { sound } = await found(params.remark);
    if (!sound) throw problems.soundEmpty();
    const { language, content } = body;
    const transcript = looksLikeCaptions(content)
      ? ofCaptions(content, language)
      : mended(undefined, { language, text: content.trim(), read: true }, sound.duration);
    return keep(params.remark, transcript, person.id);
  });

  function ofCaptions(content: string, language: string): Transcript {
    try {
      const words = wordsOfCues(readCues(content));
      return { language, text: textOfWords(words), words, source: 'person', engine: '', approximate: true, read: true };
    } catch {
      throw problems.noCaptions();
    }
  }

  serve(router, context, readTranscriptStates, 'transcript.mend', ({ params }) => selectStates(db, params.remark));

  serve(router, context, listenAgain, 'transcript.mend', async ({ params, body, person }) => {
    const place = await selectRemarkPlace(db, params.remark);
    const { sound } = await found(params.remark);
    if (!place || !sound) throw problems.soundEmpty();
    const language = body.language ?? (await selectSpokenLanguage(db, place.author, place.submission));
    await db.transaction(async (tx) => {
      const draft = await selectTranscript(tx, params.remark);
      // A draft in the wrong language is none; where no engine knows the right one, that is what a person goes on from.
      if (draft && isDraft(draft) && draft.language !== language)
        await putTranscript(tx, params.remark, { ...draft, language, approximate: true }, person.id);
      await queueJob(tx, params.remark, 'transcribe', language);
    });
    speech.queue.wake('transcribe');
    return found(params.remark);
  });

  serve(router, context, setTranslation, 'transcript.mend', async ({ params, body, person }) => {
    const { language, text } = body;
    const remark = await found(params.remark);
    const translation =
      text === null
        ? await translateRemark(db, context.translators, remark, language, person.id)
        : { text: text.trim(), source: 'person', engine: '' };
    await putTranslation(db, params.remark, { language, ...translation });
    return found(params.remark);
  });

  serve(router, context, readSpeech, 'feedback.return', ({ params }) => selectJobs(db, params.submission));

  serveBytes(router, context, '/remarks/:remark/captions/:file', 'remark.listen', async (request, response) => {
    const { remark: id, file } = request.params;
    const [, language, format] = /^([A-Za-z-]{2,35})\.(vtt|srt|json)$/u.exec(file!) ?? [];
    const remark = await found(id!);
    const body = language && captions(remark, language, format as keyof typeof TYPES);
    if (body === undefined || body === '') throw problems.notFound();
    response.type(TYPES[format as keyof typeof TYPES]).set('Cache-Control', 'no-store');
    response.attachment(`captions.${language}.${format}`).send(body);
  });

  return router;
}

function captions(
  { transcript, translations }: Remark,
  language: string,
  format: keyof typeof TYPES,
): string | undefined {
  if (transcript?.language === language) return written(transcript, format);
  const translation = translations.find((one) => one.language === language);
  if (!translation || !transcript) return undefined;
  const words = translatedWords(translation.text, transcript.words);
  return written({ language, text: translation.text, words }, format);
}

function written(
  { language, text, words }: Pick<Transcript, 'language' | 'text' | 'words'>,
  format: keyof typeof TYPES,
): string {
  if (format === 'json') return JSON.stringify({ language, text, words }, null, 2);
  return format === 'vtt' ? writeVtt(cuesOf(words), language) : writeSrt(cuesOf(words));
}
