import { z } from 'zod';
import { BankedRemark } from './bank.ts';
import { Instant, LanguageTag, Sha256 } from './basics.ts';
import { address, endpoint } from './endpoint.ts';
import { Emoji } from './said.ts';
import { Sound, SoundType } from './sound.ts';
import { Transcript } from './transcripts.ts';

/*
 * A bank as one file of open formats: a BagIt bag (RFC 8493) as a zip, around one page of W3C Web Annotations in JSON-LD, with the
 * sounds as Ogg Opus (RFC 7845) and captions as WebVTT beside it. docs/remark-bank.md describes it.
 */

/** The names of schema.org stand for what the W3C model has no word for; those of our own, for what neither has. */
export const BANK_CONTEXT = [
  'http://www.w3.org/ns/anno.jsonld',
  {
    schema: 'https://schema.org/',
    headline: 'schema:headline',
    abstract: 'schema:abstract',
    about: 'schema:about',
    version: 'schema:version',
    name: 'schema:name',
    termCode: 'schema:termCode',
    vivid: 'urn:vivid-margin:terms#',
    file: { '@id': 'schema:contentUrl' },
    sha256: 'schema:sha256',
    seconds: { '@id': 'vivid:seconds', '@type': 'http://www.w3.org/2001/XMLSchema#double' },
    peaks: { '@id': 'vivid:peaks', '@container': '@list' },
    words: { '@id': 'vivid:words', '@type': '@json' },
    origin: 'vivid:origin',
    gap: 'vivid:gap',
  },
] as const;

export const BANK_FILE_VERSION = 1;
/** What a banked remark is about, before it is about anything. */
export const ANY_WORK = 'urn:vivid-margin:any-work';

const File = z.string().regex(/^data\/[A-Za-z0-9._/-]+$/, 'is no file of the bag');

const AudioBody = z.object({
  id: z.string().regex(/^urn:sha256:[0-9a-f]{64}$/),
  type: z.literal('Audio'),
  format: SoundType,
  file: File,
  sha256: Sha256,
  seconds: Sound.shape.duration,
  peaks: Sound.shape.peaks,
});
const TranscriptBody = z.object({
  type: z.literal('TextualBody'),
  purpose: z.literal('describing'),
  language: LanguageTag,
  value: Transcript.shape.text,
  words: Transcript.shape.words.optional(),
  origin: Transcript.shape.source,
});
const WrittenBody = z.object({
  type: z.literal('TextualBody'),
  purpose: z.literal('commenting'),
  language: LanguageTag,
  value: BankedRemark.shape.text,
});
const SuggestionBody = z.object({
  type: z.literal('TextualBody'),
  purpose: z.literal('editing'),
  value: z.string().max(5_000),
});
const TagBody = z.object({
  type: z.literal('TextualBody'),
  purpose: z.literal('tagging'),
  value: z.string().min(1).max(40),
});
const ReactionBody = z.object({ type: z.literal('TextualBody'), purpose: z.literal('replying'), value: Emoji });
const LinkBody = z.object({
  type: z.literal('SpecificResource'),
  purpose: z.literal('linking'),
  source: z.string().max(2_000),
});
const CaptionsBody = z.object({
  id: File,
  type: z.literal('Text'),
  format: z.literal('text/vtt'),
  language: LanguageTag,
});

export const BankAnnotation = z.object({
  id: z.string().regex(/^urn:uuid:[0-9a-f-]{36}$/),
  type: z.literal('Annotation'),
  motivation: z.literal('commenting'),
  created: Instant,
  headline: BankedRemark.shape.name,
  abstract: BankedRemark.shape.description,
  about: z.object({ name: BankedRemark.shape.criterion, termCode: BankedRemark.shape.kind }),
  gap: z.int().min(1).optional(),
  body: z
    .array(
      z.union([AudioBody, TranscriptBody, WrittenBody, SuggestionBody, TagBody, ReactionBody, LinkBody, CaptionsBody]),
    )
    .max(100),
  target: z.literal(ANY_WORK),
});
export type BankAnnotation = z.infer<typeof BankAnnotation>;

/** The page as it is read: each of its items is looked at by itself, so that each can be told what is wrong with it. */
export const BankPage = z.object({
  id: z.string(),
  type: z.literal('AnnotationPage'),
  version: z.literal(BANK_FILE_VERSION, { error: 'is of another version than this program knows' }),
  items: z.array(z.unknown()),
});

/** What one line of a file would become, or has become. */
const Line = z.object({
  line: z.int(),
  name: z.string(),
  fate: z.enum(['add', 'merge', 'known', 'refuse']),
  /** In plain words. */
  why: z.string(),
});
export type Line = z.infer<typeof Line>;

export const BankReport = z.object({
  add: z.int(),
  /** There already; what the file says more about them is taken over. */
  merge: z.int(),
  known: z.int(),
  refuse: z.int(),
  /** The first of each fate; there may be thousands. */
  lines: z.array(Line),
  done: z.boolean(),
});
export type BankReport = z.infer<typeof BankReport>;

/** Looks at a file, a bag or a table, and says line by line what would come of it; with `bringIn` it does so, all or nothing. */
export const importBank = endpoint({
  method: 'POST',
  path: '/bank/import',
  body: z.object({ bringIn: z.boolean() }),
  upload: { files: 'one', largest: 'recording' },
  answer: BankReport,
});
export const bankFile = address('/bank/file');
export const bankTable = address('/bank/table');
