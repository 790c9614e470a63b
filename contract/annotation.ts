import type { AnnotationSelector as CoreSelector, AnnotationTarget as CoreTarget } from '#core/anchor';
import { z } from 'zod';
import { LanguageTag } from './basics.ts';
import { Kind } from './margin-key.ts';
import { SaidWords } from './said.ts';
import { Sound, SoundType } from './sound.ts';
import { Transcript } from './transcripts.ts';

/*
 * Remarks as W3C Web Annotations (https://www.w3.org/TR/annotation-model/) in JSON-LD. Terms of our own, with what the model
 * has no word for, stand in a context of their own.
 */

export const ANNOTATION_CONTEXT = [
  'http://www.w3.org/ns/anno.jsonld',
  {
    vivid: 'urn:vivid-margin:terms#',
    seconds: { '@id': 'vivid:seconds', '@type': 'http://www.w3.org/2001/XMLSchema#double' },
    picture: 'vivid:picture',
    peaks: { '@id': 'vivid:peaks', '@container': '@list' },
    words: { '@id': 'vivid:words', '@type': '@json' },
    origin: 'vivid:origin',
    content: { '@id': 'vivid:content', '@type': '@json' },
    fileName: 'vivid:fileName',
  },
] as const;

const Selector = z.object({
  type: z.string(),
  start: z.int().min(0).optional(),
  end: z.int().min(0).optional(),
  exact: z.string().optional(),
  prefix: z.string().optional(),
  suffix: z.string().optional(),
  conformsTo: z.string().optional(),
  value: z.string().optional(),
}) satisfies z.ZodType<CoreSelector>;

const Target = z.object({
  source: z.string(),
  selector: z.union([Selector, z.array(Selector)]).optional(),
}) satisfies z.ZodType<CoreTarget>;

/** The recording. Its bytes are known by their SHA-256. */
const SoundBody = z.object({
  id: z.string(),
  type: z.enum(['Audio', 'Video']),
  format: SoundType,
  seconds: Sound.shape.duration,
  peaks: Sound.shape.peaks,
  picture: Sound.shape.picture.optional(),
});

/** What is written, with all else that a remark can carry. */
const WrittenBody = z.object({
  type: z.literal('TextualBody'),
  purpose: z.literal('commenting'),
  format: z.literal('text/plain'),
  value: z.string(),
  content: SaidWords.omit({ text: true }),
});

/** A file that is attached; its bytes are known by their SHA-256. */
const FileBody = z.object({ id: z.string(), type: z.literal('Dataset'), fileName: z.string() });

const TranscriptBody = z.object({
  type: z.literal('TextualBody'),
  purpose: z.literal('describing'),
  format: z.literal('text/plain'),
  language: LanguageTag,
  value: z.string(),
  words: Transcript.shape.words,
  origin: Transcript.shape.source,
});

/** What the remark is for. */
const KindBody = z.object({ type: z.literal('TextualBody'), purpose: z.literal('tagging'), value: Kind });

export const Annotation = z.object({
  id: z.string(),
  type: z.literal('Annotation'),
  motivation: z.array(z.string()).min(1),
  creator: z.object({ id: z.string(), type: z.literal('Person'), name: z.string() }),
  created: z.iso.datetime({ offset: true }),
  body: z.array(z.union([SoundBody, TranscriptBody, WrittenBody, FileBody, KindBody])),
  target: Target,
});
export type Annotation = z.infer<typeof Annotation>;

export const AnnotationPage = z.object({
  '@context': z.unknown(),
  id: z.string(),
  type: z.literal('AnnotationPage'),
  items: z.array(Annotation),
});
export type AnnotationPage = z.infer<typeof AnnotationPage>;
