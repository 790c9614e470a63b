import { cuesOf, isDraft, looksLikeCaptions, translatedWords, writeSrt, writeVtt } from '#core/transcript';
import { Router } from 'express';
import {
  importCaptions,
  listenAgain,
  mendTranscript,
  readSpeech,
  readTranscriptStates,
  recordingCaptions,
  setTranslation,
  type Recording,
} from '../../contract/recordings.ts';
import { SpokenText, type Transcript } from '../../contract/transcripts.ts';
import type { Reader } from '../access/visible.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve, serveBytes } from '../http/serve.ts';
import { readTextApart } from '../reading/read-apart.ts';
import { NotReadable } from '../reading/read-text.ts';
import { queueJob, selectJobs } from '../speech/jobs.ts';
import { mended, putTranscript, putTranslation, selectStates, selectTranscript } from '../transcripts/queries.ts';
import { translateWords } from '../translation/translate.ts';
import { found } from './make.ts';
import { selectRecording, updateLanguage } from './queries.ts';

/** Aligning a usual remark takes some tenths of a second; a longer one comes later. */
const ALIGN_MILLISECONDS = 900;

const TYPES = { vtt: 'text/vtt', srt: 'application/x-subrip', json: 'application/json' } as const;

/** The words of recordings: mended, listened to again, translated, in and out as captions. */
export function wordRoutes(context: Context): Router {
  const router = Router();
  const { db, speech } = context;

  interface Asker {
    standing: Pick<Reader, 'teacher'>;
    person: { id: string };
  }
  const answer = async (recording: string, { standing, person }: Asker): Promise<Recording> =>
    found(await selectRecording(db, recording, { teacher: standing.teacher, person: person.id }));

  async function keep(recording: string, transcript: Transcript, asker: Asker): Promise<Recording> {
    const queued = await db.transaction(async (tx) => {
      const before = await selectTranscript(tx, recording);
      await putTranscript(tx, recording, transcript, asker.person.id);
      const differs = before?.text !== transcript.text || before.language !== transcript.language;
      if (!differs || transcript.text.trim() === '') return false;
      await queueJob(tx, recording, 'align', transcript.language);
      return true;
    });
    if (queued) {
      const ended = speech.queue.ended(recording, ALIGN_MILLISECONDS);
      speech.queue.wake('align');
      await ended;
    }
    return answer(recording, asker);
  }

  serve(router, context, mendTranscript, 'recording.mend', async ({ params: { recording }, body, ...asker }) => {
    const { sound, transcript } = await answer(recording, asker);
    return keep(recording, mended(transcript ?? undefined, body, sound.duration), asker);
  });

  serve(router, context, importCaptions, 'recording.mend', async ({ params: { recording }, body, ...asker }) => {
    const { sound } = await answer(recording, asker);
    const { language, content } = body;
    const timed = looksLikeCaptions(content);
    // Captions have their times beside their words.
    if (!timed && !SpokenText.safeParse(content).success) throw problems.textTooLarge();
    const transcript = timed
      ? await ofCaptions(content, language, asker.person.id)
      : mended(undefined, { language, text: content.trim(), read: true }, sound.duration);
    return keep(recording, transcript, asker);
  });

  async function ofCaptions(content: string, language: string, who: string): Promise<Transcript> {
    const read = await readTextApart(who, { kind: 'captions', text: content }).catch((error: unknown) => {
      throw error instanceof NotReadable ? problems.noCaptions() : error;
    });
    if (!SpokenText.safeParse(read.text).success) throw problems.textTooLarge();
    return { language, ...read, source: 'person', engine: '', approximate: true, read: true };
  }

  serve(router, context, readTranscriptStates, 'recording.mend', ({ params }) => selectStates(db, params.recording));

  serve(router, context, listenAgain, 'recording.mend', async ({ params: { recording }, body, ...asker }) => {
    const before = await answer(recording, asker);
    const language = body.language ?? before.language;
    await db.transaction(async (tx) => {
      await updateLanguage(tx, recording, language);
      const draft = await selectTranscript(tx, recording);
      // A draft in the wrong language is none; where no engine knows the right one, that is what a person goes on from.
      if (draft && isDraft(draft) && draft.language !== language)
        await putTranscript(tx, recording, { ...draft, language, approximate: true }, asker.person.id);
      await queueJob(tx, recording, 'transcribe', language);
    });
    speech.queue.wake('transcribe');
    return answer(recording, asker);
  });

  serve(router, context, setTranslation, 'recording.mend', async ({ params: { recording }, body, ...asker }) => {
    const { language, text } = body;
    const { transcript } = await answer(recording, asker);
    const translation =
      text === null
        ? await translateWords(db, context.translators, transcript, language, asker.person.id)
        : { text: text.trim(), source: 'person', engine: '' };
    await putTranslation(db, recording, { language, ...translation });
    return answer(recording, asker);
  });

  serve(router, context, readSpeech, 'feedback.read', ({ params, person, standing }) =>
    selectJobs(db, params.submission, { teacher: standing.teacher, person: person.id }),
  );

  serveBytes(router, context, recordingCaptions, 'recording.hear', async ({ recording, file }, _request, response) => {
    const [, language, format] = /^([A-Za-z-]{2,35})\.(vtt|srt|json)$/u.exec(file) ?? [];
    const body =
      language && captions(found(await selectRecording(db, recording)), language, format as keyof typeof TYPES);
    if (body === undefined || body === '') throw problems.notFound();
    response.type(TYPES[format as keyof typeof TYPES]).set('Cache-Control', 'no-store');
    response.attachment(`captions.${language}.${format}`).send(body);
  });

  return router;
}

function captions(
  { transcript, translations }: Recording,
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
