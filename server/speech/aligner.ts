import { speechSpans, type Span } from '#core/audio';
import { proportional, spoken, tokens, type Token, type Word } from '#core/transcript';
import { toCardinal as englishNumber, toOrdinal as englishOrdinal } from 'n2words/en-US';
import { toCardinal as frenchNumber, toOrdinal as frenchOrdinal } from 'n2words/fr-FR';
import { alignable, type AlignedLanguage } from './aligned-languages.ts';
import { forced, type Pause } from './forced.ts';
import { SPEECH_RATE } from './speech-rate.ts';

/** Words with times, and whether somebody listened for them or they were shared out. */
export interface Aligned {
  words: Word[];
  approximate: boolean;
}

const NUMBERS = {
  en: { cardinal: englishNumber, ordinal: englishOrdinal },
  fr: { cardinal: frenchNumber, ordinal: frenchOrdinal },
};
/** Seconds between two words in which a recording can be parted. */
const SHORTEST_PAUSE = 0.15;
/** Longer numbers are said digit by digit, or not at all. */
const LONGEST_NUMBER = 12;

/** A text of which it shall be told when its words are said. */
export interface Said {
  text: string;
  /** BCP 47 tag. */
  language: string;
  /** The words of the text as far as their times are known: pauses between them help in long recordings. */
  known?: readonly Word[];
}

/**
 * When each word of a known text is said. English and French are aligned with their sound; other languages, and what does
 * not fit its sound, are shared out between the pauses.
 * @param samples one channel at SPEECH_RATE
 * @param turn called now and then in a long recording, to let others have theirs
 */
export async function align(samples: Float32Array, said: Said, turn = nobodyElse): Promise<Aligned> {
  const { text, language } = said;
  const model = alignable(language);
  const aligned = model && (await heardFor(samples, said, model, turn));
  if (aligned) return aligned;
  return { words: proportional(text, spansOf(samples)), approximate: true };
}

const spansOf = (samples: Float32Array): Span[] => {
  const spans = speechSpans(samples, SPEECH_RATE);
  return spans.length > 0 ? spans : [{ start: 0, end: samples.length / SPEECH_RATE }];
};

const nobodyElse = (): Promise<void> => Promise.resolve();

async function heardFor(
  samples: Float32Array,
  { text, known = [] }: Said,
  language: AlignedLanguage,
  turn: () => Promise<void>,
): Promise<Aligned | undefined> {
  const all = tokens(text);
  const parts = all.map((token) => saidAs(token, language));
  const words = parts.flat();
  if (words.length === 0) return undefined;
  const pauses = known.length === all.length ? pausesOf(known, parts) : [];
  const parted = await forced(samples, { words, language, pauses }, turn);
  const anew = isMostlyLost(parted) && (await forced(samples, { words, language, pauses: [] }, turn));
  const said = anew || parted;
  if (said?.length !== words.length) return undefined;
  return { words: gathered(all, parts, said, known), approximate: said.includes(undefined) };
}

/** The pauses were not where they were thought to be. */
const isMostlyLost = (said: readonly (Span | undefined)[] | undefined): boolean =>
  said !== undefined && 2 * said.filter((span) => span === undefined).length > said.length;

/** Words whose times were shared out follow each other without a pause, so those on both sides of one have been heard. */
function pausesOf(known: readonly Word[], parts: readonly string[][]): Pause[] {
  let words = 0;
  return known.flatMap(({ start }, index) => {
    const end = known[index - 1]?.end ?? 0;
    const pause = { start: end, end: start, words };
    words += parts[index]!.length;
    return index > 0 && start - end >= SHORTEST_PAUSE ? [pause] : [];
  });
}

/** The words of the dictionary that a token is said as: figures in full, the halves of a compound apart. */
function saidAs({ text }: Token, language: AlignedLanguage): string[] {
  const { cardinal, ordinal } = NUMBERS[language];
  const said = text
    .replace(/(?<!\d)(\d+)(?:st|nd|rd|th|er|re|e)\b/giu, (all, figures: string) =>
      figures.length > LONGEST_NUMBER ? all : ` ${ordinal(BigInt(figures))} `,
    )
    .replace(/\d+(?:[.,]\d+)?/gu, (figures) =>
      figures.length > LONGEST_NUMBER ? ' ' : ` ${cardinal(Number(figures.replace(',', '.')))} `,
    )
    .split(/[\s\-–—/]+/u)
    .map(spoken);
  return said.filter((word) => /[\p{L}\p{N}]/u.test(word));
}

/**
 * Each token from the beginning of its first part to the end of its last; one that is not said at all takes no time, and one
 * that was not found is where it was known to be.
 */
function gathered(
  all: readonly Token[],
  parts: readonly string[][],
  said: readonly (Span | undefined)[],
  known: readonly Word[],
): Word[] {
  let at = 0;
  let last = 0;
  return all.map(({ text }, index) => {
    const own = said.slice(at, (at += parts[index]!.length));
    const found = own.every((span) => span !== undefined) ? own : [known[index]];
    const start = Math.max(last, found[0]?.start ?? last);
    last = Math.max(start, found.at(-1)?.end ?? last);
    return { word: text, start, end: last };
  });
}
