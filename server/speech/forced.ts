import { quietestMoment, speechSpans, type Span } from '#core/audio';
import { pronunciation } from '#core/transcript';
import { createRequire } from 'node:module';
import path from 'node:path';
import type { Decoder, Segment } from 'soundswallower';
import type { AlignedLanguage } from './aligned-languages.ts';
import { openingGrammar } from './opening-grammar.ts';
import { soundswallower } from './soundswallower.ts';
import { SPEECH_RATE } from './speech-rate.ts';

const MODELS: Record<AlignedLanguage, string> = { en: 'en-us', fr: 'fr-fr' };
/** For what no rule of spelling knows. */
const SOME_VOWEL: Record<AlignedLanguage, string> = { en: 'AH', fr: 'ee' };

/** Beams: the usual ones first, then ones that follow a text that was said less clearly. */
const BEAMS = ['1e-64', '1e-200'];
/** Seconds of silence put around a recording: a model needs some to begin and to end in. */
const PADDING = 0.2;
/** Seconds: what is longer is listened to in parts, because the time for it grows with the square of its length. */
const LONGEST = 120;
const LONGEST_PART = 40;
/** Seconds: in what is longer somebody speaks other words. */
const LONGEST_PAUSE = 2;
/** Seconds of a pause that a part has at its beginning and its end. */
const MARGIN = 0.3;
/** How far the number of words in a part may be from its share, tried in order; each word more costs time. */
const WIDTHS = [0.4, 0.7];
/** Words that are allowed beyond that in any case. */
const SLACK = 8;
/**
 * The mean logarithm of what the model thinks of a word. Measured on four synthetic voices and one human, in quiet and in noise
 * (5 dB): −0.03 to −0.1 for a text that was said, −0.11 to −0.22 for another, so words that are below this got out of step.
 */
const IN_STEP = -0.1;

const packageFolder = path.dirname(createRequire(import.meta.url).resolve('soundswallower'));
const decoders = new Map<string, Promise<Decoder>>();

/** A pause, in seconds, of which it is known which words are before it. What is said in a long one is none of the words. */
export interface Pause extends Span {
  /** How many words are said until then. */
  words: number;
}

export interface Expected {
  /** As they are spoken, all of which are expected in the sound. */
  words: readonly string[];
  language: AlignedLanguage;
  /** What is known already, in order: long recordings are parted there. */
  pauses: readonly Pause[];
}

/**
 * Where each of the words is in the sound, found by forced alignment.
 * @param samples one channel at SPEECH_RATE
 * @param turn called between two parts of a long recording, to let others have theirs
 * @returns seconds, one for each word, undefined for those between two pauses that do not fit; undefined where nothing fits
 */
export async function forced(
  samples: Float32Array,
  { words, language, pauses }: Expected,
  turn: () => Promise<void>,
): Promise<(Span | undefined)[] | undefined> {
  const duration = samples.length / SPEECH_RATE;
  const found: (Span | undefined)[] = [];
  let speech: Span[] | undefined;
  let start = 0;
  const cut = (end: number): Float32Array =>
    samples.subarray(Math.round(start * SPEECH_RATE), Math.round(end * SPEECH_RATE));

  const longest = duration > LONGEST && pauses.length > 0 ? LONGEST_PART : LONGEST;

  while (duration - start > longest) {
    speech ??= speechSpans(samples, SPEECH_RATE);
    const pause = nextPause(pauses, start, found.length);
    const end = pause ? endIn(pause) : quietestEnd(samples, start);
    const left = words.slice(found.length, pause?.words);
    const said = pause
      ? await all(cut(end), left, language, IN_STEP)
      : await opening(cut(end), left, shareOf({ start, end }, speech), language);
    const next = pause ?? (said ? undefined : pauses.find(({ words }) => words > found.length));
    if (!said && !next) return undefined;
    found.push(...(said ? shifted(said, start) : lost(next!.words - found.length)));
    start = next ? startIn(next) : end;
    await turn();
  }
  const left = words.slice(found.length);
  const said = await all(cut(duration), left, language, start > 0 ? IN_STEP : -Infinity);
  if (!said && (start === 0 || pauses.length === 0)) return undefined;
  return [...found, ...(said ? shifted(said, start) : lost(left.length))];
}

const shifted = (spans: readonly Span[], by: number): Span[] =>
  spans.map(({ start, end }) => ({ start: by + start, end: by + end }));

const lost = (count: number): undefined[] => Array.from({ length: count }, () => undefined);

/** Where the next part may end: before what is said but is none of the words, or in the longest pause. */
function nextPause(pauses: readonly Pause[], start: number, words: number): Pause | undefined {
  const near = pauses.filter((pause) => pause.words > words && endIn(pause) < start + LONGEST_PART);
  const unsaid = near.find((pause) => lengthOf(pause) > LONGEST_PAUSE);
  if (unsaid) return unsaid;
  return near
    .filter((pause) => endIn(pause) > start + LONGEST_PART / 2)
    .reduce<Pause | undefined>((best, pause) => (best && lengthOf(best) >= lengthOf(pause) ? best : pause), undefined);
}

const lengthOf = ({ start, end }: Span): number => end - start;
const endIn = (pause: Pause): number => pause.start + Math.min(MARGIN, lengthOf(pause) / 2);
const startIn = (pause: Pause): number => pause.end - Math.min(MARGIN, lengthOf(pause) / 2);

const quietestEnd = (samples: Float32Array, start: number): number =>
  quietestMoment(samples, SPEECH_RATE, { start: start + LONGEST_PART / 2, end: start + LONGEST_PART }, PADDING);

/** How much of the speech from the beginning of a part on is in it, from 0 to 1. */
function shareOf({ start, end }: Span, speech: readonly Span[]): number {
  const within = (from: number, to: number): number =>
    speech.reduce((sum, span) => sum + Math.max(0, Math.min(span.end, to) - Math.max(span.start, from)), 0);
  const rest = within(start, Infinity);
  return rest === 0 ? 0 : within(start, end) / rest;
}

async function all(
  sound: Float32Array,
  words: readonly string[],
  language: AlignedLanguage,
  fit: number,
): Promise<Span[] | undefined> {
  if (words.length === 0) return [];
  const expect = (decoder: Decoder): void => decoder.set_align_text(words.join(' '));
  return listen(sound, words, language, { expect, fit, enough: (count) => count === words.length });
}

/** As many of the first words as are in the sound; none where it is silent. */
async function opening(
  sound: Float32Array,
  words: readonly string[],
  share: number,
  language: AlignedLanguage,
): Promise<Span[] | undefined> {
  if (share === 0 || words.length === 0) return [];
  for (const width of WIDTHS) {
    const least = Math.max(1, Math.floor(words.length * share * (1 - width)) - SLACK);
    const most = Math.min(words.length, Math.ceil(words.length * share * (1 + width)) + SLACK);
    const offered = words.slice(0, most);
    const grammar = openingGrammar(offered, least);
    const inside = (count: number): boolean =>
      (count > least || least === 1) && (count < most || most === words.length);
    const expect = (decoder: Decoder): void => decoder.set_grammar(grammar);
    const said = await listen(sound, offered, language, { expect, fit: IN_STEP, enough: inside });
    if (said) return said;
  }
  return undefined;
}

interface Expectation {
  expect: (decoder: Decoder) => void;
  /** As good must the words fit. */
  fit: number;
  /** Whether so many words can be all. */
  enough: (count: number) => boolean;
}

async function listen(
  sound: Float32Array,
  words: readonly string[],
  language: AlignedLanguage,
  { expect, fit, enough }: Expectation,
): Promise<Span[] | undefined> {
  for (const beam of BEAMS) {
    const decoder = await decoderFor(language, beam);
    for (const word of new Set(words)) addWord(decoder, word, language);
    const said = heard(decoder, sound, expect);
    if (enough(said.length) && fitOf(said) >= fit) return spansOf(said, sound.length / SPEECH_RATE);
  }
  return undefined;
}

/** Without silences, noises and the joints of the grammar; none where the beam lost its way. */
function heard(decoder: Decoder, sound: Float32Array, expect: (decoder: Decoder) => void): Segment[] {
  try {
    expect(decoder);
    decoder.start();
    decoder.process_audio(padded(sound), false, true);
    decoder.stop();
    return (decoder.get_alignment({ start: 0 }).w ?? []).filter(({ t }) => !/^[<[+(]/u.test(t));
  } catch {
    return [];
  }
}

const fitOf = (said: readonly Segment[]): number =>
  said.reduce((sum, { p }) => sum + Math.log(p), 0) / Math.max(1, said.length);

function spansOf(said: readonly Segment[], duration: number): Span[] {
  const within = (seconds: number): number => Math.min(duration, Math.max(0, seconds - PADDING));
  return said.map(({ b, d }) => ({ start: within(b), end: within(b + d) }));
}

function addWord(decoder: Decoder, word: string, language: AlignedLanguage): void {
  if (decoder.lookup_word(word)) return;
  decoder.add_words([word, pronunciation(word, language) ?? SOME_VOWEL[language]]);
}

function padded(samples: Float32Array): Float32Array {
  const pad = PADDING * SPEECH_RATE;
  const result = new Float32Array(samples.length + 2 * pad);
  result.set(samples, pad);
  return result;
}

function decoderFor(language: AlignedLanguage, beam: string): Promise<Decoder> {
  const key = `${language} ${beam}`;
  const ready = decoders.get(key) ?? makeDecoder(language, beam);
  decoders.set(key, ready);
  return ready;
}

async function makeDecoder(language: AlignedLanguage, beam: string): Promise<Decoder> {
  const { Decoder } = await soundswallower();
  const decoder = new Decoder({
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
