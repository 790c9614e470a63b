import type { Transcript as CoreTranscript } from '#core/transcript';
import { z } from 'zod';
import { Anchor } from './anchor.ts';
import { Id, Instant, LanguageTag, Nothing, Sha256, WebLink } from './basics.ts';
import { endpoint } from './endpoint.ts';
import { Kind } from './margin-key.ts';
import { NewSound, Sound, SoundEdit } from './sound.ts';
import { Stamp } from './stamps.ts';

/** As much as is said in the longest recording: three hours at three words a second. */
export const MOST_SAID = 250_000;
const SpokenText = z.string().max(MOST_SAID);

const TranscriptSource = z.enum(['machine', 'person', 'bank']);

export type Transcript = z.infer<typeof Transcript>;
export const Transcript = z.object({
  language: LanguageTag,
  text: SpokenText,
  words: z.array(
    z.object({
      word: z.string(),
      start: z.number().min(0),
      end: z.number().min(0),
      confidence: z.number().min(0).max(1).optional(),
    }),
  ),
  source: TranscriptSource,
  /** What made it, in words for people; empty where a person typed it. */
  engine: z.string().default(''),
  approximate: z.boolean().default(false),
  read: z.boolean().default(true),
}) satisfies z.ZodType<CoreTranscript>;

/** The same words in another language. */
export const Translation = z.object({
  language: LanguageTag,
  text: SpokenText,
  source: TranscriptSource,
  engine: z.string(),
});
export type Translation = z.infer<typeof Translation>;

/** How far listening to a recording is, and why it failed. */
export const SpeechJob = z.object({
  task: z.enum(['transcribe', 'align']),
  state: z.enum(['queued', 'running', 'done', 'failed']),
  reason: z.string().nullable(),
  /** How much of the recording has been listened to; null where nobody tells. */
  progress: z.number().min(0).max(1).nullable(),
});
export type SpeechJob = z.infer<typeof SpeechJob>;

export const Reply = z.object({
  id: Id,
  author: z.object({ id: Id, name: z.string() }),
  at: Instant,
  text: z.string(),
  sound: Sound.nullable(),
});
export type Reply = z.infer<typeof Reply>;

/** One emoji of the set that Unicode recommends for interchange (UTS #51, RGI). */
const RGI_EMOJI = new RegExp('^\\p{RGI_Emoji}$', 'v');
export const Emoji = z.string().regex(RGI_EMOJI, 'is not one emoji of the standard set');

/** What a remark can carry beside its sound and its file. */
export const RemarkContent = z.object({
  /** What its author calls it. */
  name: z.string().trim().max(80),
  text: z.string().trim().max(20_000),
  link: WebLink.nullable(),
  reaction: Emoji.nullable(),
  /** What its passage should read; empty where the passage should go. */
  suggestion: z.string().max(5_000).nullable(),
  stamp: Stamp.nullable(),
  /** Stays among the teachers. */
  private: z.boolean(),
  tags: z.array(z.string().trim().min(1).max(40)).max(20),
  criterion: Id.nullable(),
});
export type RemarkContent = z.infer<typeof RemarkContent>;

export const EMPTY_CONTENT: RemarkContent = {
  name: '',
  text: '',
  link: null,
  reaction: null,
  suggestion: null,
  stamp: null,
  private: false,
  tags: [],
  criterion: null,
};

export const AttachedFile = z.object({ sha256: Sha256, name: z.string(), byteLength: z.int() });
export type AttachedFile = z.infer<typeof AttachedFile>;

export const Remark = RemarkContent.extend({
  id: Id,
  author: z.object({ id: Id, name: z.string() }),
  kind: Kind,
  anchor: Anchor,
  sound: Sound.nullable(),
  /** What of the original recording is heard; null where that is all of it, and always for the student. */
  edit: SoundEdit.nullable(),
  file: AttachedFile.nullable(),
  transcript: Transcript.nullable(),
  translations: z.array(Translation).default([]),
  /** For teachers; null where there is nothing to listen to. */
  speech: SpeechJob.nullable().default(null),
  madeAt: Instant,
  /** When the student took the suggestion over. */
  takenAt: Instant.nullable(),
  /** When the student first began to listen, and first had heard it to the end. */
  heard: z.object({ begunAt: Instant, finishedAt: Instant.nullable() }).nullable(),
  replies: z.array(Reply),
});
export type Remark = z.infer<typeof Remark>;

/** Its files: the recording, where there is one, then the attached file. */
export const NewRemark = z.object({
  content: RemarkContent.default(EMPTY_CONTENT),
  anchor: Anchor,
  kind: Kind,
  sound: NewSound.nullable(),
  /** What the browser heard while it was spoken. */
  draft: z
    .object({ language: LanguageTag, text: SpokenText, engine: z.string().max(80) })
    .nullable()
    .default(null),
  edit: SoundEdit.nullable().default(null),
  file: z
    .object({ name: z.string().trim().min(1).max(200) })
    .nullable()
    .default(null),
});
export type NewRemark = z.infer<typeof NewRemark>;

export const RemarkChange = RemarkContent.extend({ kind: Kind, anchor: Anchor }).partial();
export type RemarkChange = z.infer<typeof RemarkChange>;

export const NewReply = z.object({ text: z.string().trim().max(20_000), sound: NewSound.nullable() });
export type NewReply = z.infer<typeof NewReply>;

/** Sending the same remark twice makes it once: the browser chooses its id. */
export const makeRemark = endpoint({
  method: 'PUT',
  path: '/submissions/:submission/remarks/:remark',
  body: NewRemark,
  file: 'any',
  answer: Remark,
});
export const changeRemark = endpoint({
  method: 'PATCH',
  path: '/remarks/:remark',
  body: RemarkChange,
  answer: Remark,
});
export const putRemarkAside = endpoint({
  method: 'PUT',
  path: '/remarks/:remark/aside',
  body: z.object({ aside: z.boolean() }),
  answer: Remark,
});
/** Puts words in the place of the transcript; they are aligned with the sound. What was there before is kept. */
export const mendTranscript = endpoint({
  method: 'PUT',
  path: '/remarks/:remark/transcript',
  body: z.object({ language: LanguageTag, text: SpokenText, read: z.boolean().default(true) }),
  answer: Remark,
});
/** Earlier states of the transcript, the newest first. */
export const readTranscriptStates = endpoint({
  method: 'GET',
  path: '/remarks/:remark/transcript/states',
  answer: z.array(Transcript.omit({ words: true }).extend({ until: Instant, changedBy: z.string().nullable() })),
});
/** Listens to the recording again, e.g. for another language. A transcript that a person wrote stays. */
export const listenAgain = endpoint({
  method: 'PUT',
  path: '/remarks/:remark/speech',
  body: z.object({ language: LanguageTag.optional() }),
  answer: Remark,
});
/** WebVTT, SubRip or plain text in the place of the transcript. */
export const importCaptions = endpoint({
  method: 'PUT',
  path: '/remarks/:remark/captions',
  body: z.object({
    language: LanguageTag,
    content: z
      .string()
      .min(1)
      .max(2 * MOST_SAID),
  }),
  answer: Remark,
});
/** The words in another language; without a text a translator makes them. An empty text takes them away. */
export const setTranslation = endpoint({
  method: 'PUT',
  path: '/remarks/:remark/translations',
  body: z.object({ language: LanguageTag, text: SpokenText.nullable() }),
  answer: Remark,
});
/** What has become of the recordings of a work that are being listened to. */
export const readSpeech = endpoint({
  method: 'GET',
  path: '/submissions/:submission/speech',
  answer: z.array(z.object({ remark: Id, speech: SpeechJob, transcript: Transcript.nullable() })),
});
export const reportHeard = endpoint({
  method: 'PUT',
  path: '/remarks/:remark/heard',
  body: z.object({ finished: z.boolean() }),
  answer: Remark,
});
export const makeReply = endpoint({
  method: 'PUT',
  path: '/remarks/:remark/replies/:reply',
  body: NewReply,
  file: 'optional',
  answer: Remark,
});

/** Another rendition of the recording: trimmed, cut, levelled. The recording as it was spoken stays. */
export const changeSound = endpoint({
  method: 'PUT',
  path: '/remarks/:remark/sound',
  body: z.object({
    sound: NewSound,
    edit: SoundEdit,
    /** The words of this rendition; where they are left out, those that are still heard stay. */
    transcript: Transcript.nullable().default(null),
  }),
  file: 'required',
  answer: Remark,
});
/** The recording as it was spoken, where a rendition was sent first. */
export const keepOriginal = endpoint({
  method: 'PUT',
  path: '/remarks/:remark/original',
  file: 'required',
  answer: Nothing,
});
/** The student makes a suggestion their own, or not any more. */
export const takeSuggestion = endpoint({
  method: 'PUT',
  path: '/remarks/:remark/taken',
  body: z.object({ taken: z.boolean() }),
  answer: Remark,
});

/** Sounds are fetched by the browser's own player, so they have addresses instead of endpoints. */
export const remarkSoundPath = (remark: string, sha256: string): string => `/api/remarks/${remark}/sound/${sha256}`;
export const replySoundPath = (reply: string, sha256: string): string => `/api/replies/${reply}/sound/${sha256}`;
/** The recording as it was spoken; for teachers. */
export const remarkOriginalPath = (remark: string): string => `/api/remarks/${remark}/original`;
/** Captions of a recording; for whoever may hear it. */
export const remarkCaptionsPath = (remark: string, language: string, format: 'vtt' | 'srt' | 'json'): string =>
  `/api/remarks/${remark}/captions/${language}.${format}`;
export const remarkFilePath = (remark: string, sha256: string): string => `/api/remarks/${remark}/file/${sha256}`;
export const remarkStampPath = (remark: string, sha256: string): string => `/api/remarks/${remark}/stamp/${sha256}`;
