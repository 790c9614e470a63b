import { z } from 'zod';
import { Id, Sha256, WebLink } from './basics.ts';
import { Ink } from './ink.ts';
import { NewRecording, Recording } from './recordings.ts';
import { Stamp } from './stamps.ts';
import { Track } from './talk.ts';

/** One emoji of the set that Unicode recommends for interchange (UTS #51, RGI). */
const RGI_EMOJI = new RegExp('^\\p{RGI_Emoji}$', 'v');
export const Emoji = z.string().regex(RGI_EMOJI, 'is not one emoji of the standard set');

/** What can be said beside a recording and a file. */
export const SaidContent = z.object({
  /** What its author calls it. */
  name: z.string().trim().max(80),
  text: z.string().trim().max(20_000),
  link: WebLink.nullable(),
  reaction: Emoji.nullable(),
  /** What its passage should read; empty where the passage should go. */
  suggestion: z.string().max(5_000).nullable(),
  stamp: Stamp.nullable(),
  /** What was drawn about its place. Remarks that were kept before there was ink have none. */
  ink: Ink.nullable().default(null),
  /** What was shown, chosen and drawn while it was spoken, where somebody talked the work through. */
  talk: Track.nullable().default(null),
  tags: z.array(z.string().trim().min(1).max(40)).max(20),
});
export type SaidContent = z.infer<typeof SaidContent>;

/** The same without what belongs to a place on a work. */
export const PlainContent = SaidContent.omit({ stamp: true, ink: true, talk: true });

/** What is said in words, with all that is filtered or joined by. */
export const SaidWords = SaidContent.extend({
  criterion: Id.nullable(),
  /** Stays among the teachers. */
  private: z.boolean(),
});
export type SaidWords = z.infer<typeof SaidWords>;

export const NO_WORDS: SaidWords = {
  name: '',
  text: '',
  link: null,
  reaction: null,
  suggestion: null,
  stamp: null,
  ink: null,
  talk: null,
  tags: [],
  criterion: null,
  private: false,
};

export const AttachedFile = z.object({ sha256: Sha256, name: z.string(), byteLength: z.int() });
export type AttachedFile = z.infer<typeof AttachedFile>;

/** What somebody said, wherever it stands: on a work, in the bank, for a course. */
export const Said = SaidWords.extend({ recording: Recording.nullable(), file: AttachedFile.nullable() });
export type Said = z.infer<typeof Said>;

/** What the browser sends. Its files: the recording, where there is one, then the attached file. */
export const NewSaid = SaidWords.extend({
  recording: NewRecording.nullable().default(null),
  file: z
    .object({ name: z.string().trim().min(1).max(200) })
    .nullable()
    .default(null),
}).refine(({ talk, recording }) => talk === null || recording !== null, 'is talked through without a recording');
export type NewSaid = z.infer<typeof NewSaid>;
