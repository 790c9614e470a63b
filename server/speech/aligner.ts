import { speechSpans, type Span } from '#core/audio';
import { proportional, pronunciation, spoken, tokens, type Token, type Word } from '#core/transcript';
import { createRequire } from 'node:module';
import path from 'node:path';
import { toCardinal as englishNumber, toOrdinal as englishOrdinal } from 'n2words/en-US';
import { toCardinal as frenchNumber, toOrdinal as frenchOrdinal } from 'n2words/fr-FR';
import createSoundswallower, { type Decoder, type Segment, type SoundSwallowerModule } from 'soundswallower';
import { alignable, type AlignedLanguage } from './aligned-languages.ts';
import { SPEECH_RATE } from './speech-rate.ts';

/** Words with times, and whether somebody listened for them or they were shared out. */
export interface Aligned {
  words: Word[];
  approximate: boolean;
}

const MODELS: Record<AlignedLanguage, string> = { en: 'en-us', fr: 'fr-fr' };
const NUMBERS = {
  en: { cardinal: englishNumber, ordinal: englishOrdinal },
  fr: { cardinal: frenchNumber, ordinal: frenchOrdinal },
};
/** Longer numbers are said digit by digit, or not at all. */
const LONGEST_NUMBER = 12;

/** Beams: the usual ones first, then ones that follow a text that was said less clearly. */
const BEAMS = ['1e-64', '1e-200'];
/** Seconds of silence put around a recording: a model needs some to begin and to end in. */
const PADDING = 0.2;

const packageFolder = path.dirname(createRequire(import.meta.url).resolve('soundswallower'));
let engine: Promise<SoundSwallowerModule> | undefined;
const decoders = new Map<string, Promise<Decoder>>();

/**
 * When each word of a known text is said. English and French are aligned with their sound; other languages, and what does
 * not fit its sound, are shared out between the pauses.
 * @param samples one channel at SPEECH_RATE
 */
export async function align(samples: Float32Array, text: string, language: string): Promise<Aligned> {
  const model = alignable(language);
  const words = model && (await forced(samples, text, model));
  if (words) return { words, approximate: false };
  return { words: proportional(text, spansOf(samples)), approximate: true };
}

const spansOf = (samples: Float32Array): Span[] => {
  const spans = speechSpans(samples, SPEECH_RATE);
  return spans.length > 0 ? spans : [{ start: 0, end: samples.length / SPEECH_RATE }];
};

async function forced(samples: Float32Array, text: string, language: AlignedLanguage): Promise<Word[] | undefined> {
  const all = tokens(text);
  const parts = all.map((token) => saidAs(token, language));
  if (parts.every((said) => said.length === 0)) return undefined;
  for (const beam of BEAMS) {
    const decoder = await decoderFor(language, beam);
    for (const word of new Set(parts.flat())) addWord(decoder, word, language);
    const segments = listen(decoder, samples, parts.flat().join(' '));
    const found = segments && gathered(all, parts, segments, samples.length / SPEECH_RATE);
    if (found) return found;
  }
  return undefined;
}

/** The words of the dictionary that a token is said as: figures in full, the halves of a compound apart. */
function saidAs({ text }: Token, language: AlignedLanguage): string[] {
  const { cardinal, ordinal } = NUMBERS[language];
  const said = text
    .replace(/(\d+)(?:st|nd|rd|th|er|re|e)\b/giu, (all, figures: string) =>
      figures.length > LONGEST_NUMBER ? all : ` ${ordinal(BigInt(figures))} `,
    )
    .replace(/\d+(?:[.,]\d+)?/gu, (figures) =>
      figures.length > LONGEST_NUMBER ? ' ' : ` ${cardinal(Number(figures.replace(',', '.')))} `,
    )
    .split(/[\s\-–—/]+/u)
    .map(spoken);
  return said.filter((word) => /[\p{L}\p{N}]/u.test(word));
}

function addWord(decoder: Decoder, word: string, language: AlignedLanguage): void {
  if (decoder.lookup_word(word)) return;
  const phones = pronunciation(word, language) ?? (language === 'en' ? 'AH' : 'ee');
  decoder.add_words([word, phones]);
}

function listen(decoder: Decoder, samples: Float32Array, words: string): Segment[] | undefined {
  try {
    decoder.set_align_text(words);
    decoder.start();
    decoder.process_audio(padded(samples), false, true);
    decoder.stop();
    return decoder.get_alignment({ start: 0 }).w;
  } catch {
    return undefined;
  }
}

function padded(samples: Float32Array): Float32Array {
  const pad = PADDING * SPEECH_RATE;
  const result = new Float32Array(samples.length + 2 * pad);
  result.set(samples, pad);
  return result;
}

/** Each token from the beginning of its first part to the end of its last; one that is not said at all takes no time. */
function gathered(all: Token[], parts: string[][], segments: Segment[], duration: number): Word[] | undefined {
  const said = segments.filter(({ t }) => !/^[<[+]/u.test(t));
  if (said.length !== parts.flat().length) return undefined;
  const within = (seconds: number): number => Math.min(duration, Math.max(0, seconds - PADDING));
  let at = 0;
  let last = 0;
  return all.map(({ text }, index) => {
    const own = said.slice(at, (at += parts[index]!.length));
    const start = own.length > 0 ? within(own[0]!.b) : last;
    last = own.length > 0 ? within(own.at(-1)!.b + own.at(-1)!.d) : last;
    return { word: text, start, end: last };
  });
}

function decoderFor(language: AlignedLanguage, beam: string): Promise<Decoder> {
  const key = `${language} ${beam}`;
  const ready = decoders.get(key) ?? makeDecoder(language, beam);
  decoders.set(key, ready);
  return ready;
}

async function makeDecoder(language: AlignedLanguage, beam: string): Promise<Decoder> {
  engine ??= createSoundswallower();
  const decoder = new (await engine).Decoder({
    hmm: path.join(packageFolder, 'model', MODELS[language]),
    samprate: SPEECH_RATE,
    beam: Number(beam),
    pbeam: Number(beam),
    wbeam: Number(beam),
    loglevel: 'FATAL',
  });
  await decoder.initialize();
  return decoder;
}

/** Seconds in which the voice activity detector hears a voice: noise and silence have none. */
export async function voiceSeconds(samples: Float32Array): Promise<number> {
  engine ??= createSoundswallower();
  const endpointer = new (await engine).Endpointer({ samprate: SPEECH_RATE, mode: 3 });
  const size = endpointer.get_frame_size();
  let seconds = 0;
  for (let at = 0; at + size <= samples.length; at += size)
    if (endpointer.process(samples.subarray(at, at + size))) seconds += size / SPEECH_RATE;
  return seconds;
}
