import { z } from 'zod';
import { Id, Instant, LanguageTag, Nothing } from './basics.ts';
import { address, endpoint } from './endpoint.ts';
import { NewSound, Sound, SoundEdit, Stretch } from './sound.ts';
import { MOST_SAID, SpeechJob, SpokenText, Transcript, Translation } from './transcripts.ts';

/** Something spoken, or filmed. What holds it (a remark, a reply) points to it. */
export const Recording = z.object({
  id: Id,
  sound: Sound,
  /** What of the original recording is heard; null where that is all of it, and for those who only listen. */
  edit: SoundEdit.nullable(),
  /** What is probably spoken. */
  language: LanguageTag,
  transcript: Transcript.nullable(),
  translations: z.array(Translation),
  /** For teachers and whoever spoke; null where there is nothing to listen to. */
  speech: SpeechJob.nullable(),
  /** When somebody else first began to listen and first had heard it all, and what of it they have played. */
  heard: z.object({ begunAt: Instant, finishedAt: Instant.nullable(), played: z.array(Stretch) }).nullable(),
  madeAt: Instant,
});
export type Recording = z.infer<typeof Recording>;

/** What the browser tells about a recording that it sends. The browser chooses its id, so that it is made once however often it is sent. */
export const NewRecording = z.object({
  id: Id,
  sound: NewSound,
  edit: SoundEdit.nullable().default(null),
  /** What the browser heard while it was spoken. */
  draft: z
    .object({ language: LanguageTag, text: SpokenText, engine: z.string().max(80) })
    .nullable()
    .default(null),
});
export type NewRecording = z.infer<typeof NewRecording>;

/** Another rendition: trimmed, cut, levelled. The recording as it was spoken stays. */
export const changeSound = endpoint({
  method: 'PUT',
  path: '/recordings/:recording/sound',
  body: z.object({
    sound: NewSound,
    edit: SoundEdit,
    /** The words of this rendition; where they are left out, those that are still heard stay. */
    transcript: Transcript.nullable().default(null),
  }),
  upload: { files: 'one', largest: 'recording' },
  answer: Recording,
});
/** The recording as it was spoken, where a rendition was sent first. */
export const keepOriginal = endpoint({
  method: 'PUT',
  path: '/recordings/:recording/original',
  upload: { files: 'one', largest: 'recording' },
  answer: Nothing,
});
/** Puts words in the place of the transcript; they are aligned with the sound. What was there before is kept. */
export const mendTranscript = endpoint({
  method: 'PUT',
  path: '/recordings/:recording/transcript',
  body: z.object({ language: LanguageTag, text: SpokenText, read: z.boolean().default(true) }),
  answer: Recording,
});
/** Earlier states of the transcript, the newest first. */
export const readTranscriptStates = endpoint({
  method: 'GET',
  path: '/recordings/:recording/transcript/states',
  answer: z.array(Transcript.omit({ words: true }).extend({ until: Instant, changedBy: z.string().nullable() })),
});
/** Listens to the recording again, e.g. for another language. A transcript that a person wrote stays. */
export const listenAgain = endpoint({
  method: 'PUT',
  path: '/recordings/:recording/speech',
  body: z.object({ language: LanguageTag.optional() }),
  answer: Recording,
});
/** WebVTT, SubRip or plain text in the place of the transcript. */
export const importCaptions = endpoint({
  method: 'PUT',
  path: '/recordings/:recording/captions',
  body: z.object({
    language: LanguageTag,
    content: z
      .string()
      .min(1)
      .max(2 * MOST_SAID),
  }),
  answer: Recording,
});
/** The words in another language; without a text a translator makes them. An empty text takes them away. */
export const setTranslation = endpoint({
  method: 'PUT',
  path: '/recordings/:recording/translations',
  body: z.object({ language: LanguageTag, text: SpokenText.nullable() }),
  answer: Recording,
});
export const reportHeard = endpoint({
  method: 'PUT',
  path: '/recordings/:recording/heard',
  /** What was played since it was told last; nothing where somebody has begun. */
  body: z.object({ played: z.array(Stretch).max(500) }),
  answer: Recording,
});
/** What has become of the recordings of a work that are being listened to. */
export const readSpeech = endpoint({
  method: 'GET',
  path: '/submissions/:submission/speech',
  answer: z.array(z.object({ recording: Id, speech: SpeechJob, transcript: Transcript.nullable() })),
});

export const recordingSound = address('/recordings/:recording/sound/:sha256');
/** The recording as it was spoken; not for those who only listen. */
export const recordingOriginal = address('/recordings/:recording/original');
/** Captions, for whoever may hear it; the file is called `LANGUAGE.vtt`, `.srt` or `.json`. */
export const recordingCaptions = address('/recordings/:recording/captions/:file');
