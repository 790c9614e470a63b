import { withoutEnds } from '../text/index.ts';
import { searchable } from '#core/transcript';
import stemmers from 'snowball-stemmers';

/** A word as somebody wrote or said it, and what it is found by. */
export interface Term {
  /** In small letters, without accents. */
  surface: string;
  /** What its forms have in common. */
  stem: string;
}

/** Scripts that put no spaces between words: there each two neighbouring signs are taken for one. */
const UNSPACED =
  '\\p{Script=Han}\\p{Script=Hiragana}\\p{Script=Katakana}ー\\p{Script=Thai}\\p{Script=Lao}\\p{Script=Myanmar}\\p{Script=Khmer}';
const WORDS = new RegExp(`[${UNSPACED}]+|(?:(?![${UNSPACED}])[\\p{L}\\p{N}'])+`, 'gv');
const IS_UNSPACED = new RegExp(`^[${UNSPACED}]`, 'v');

/** The Snowball algorithm for each language that has one, by its BCP 47 subtag. */
const ALGORITHMS: Record<string, string> = {
  ar: 'arabic',
  ca: 'catalan',
  cs: 'czech',
  da: 'danish',
  de: 'german',
  en: 'english',
  es: 'spanish',
  eu: 'basque',
  fi: 'finnish',
  fr: 'french',
  ga: 'irish',
  hu: 'hungarian',
  hy: 'armenian',
  it: 'italian',
  nb: 'norwegian',
  nl: 'dutch',
  nn: 'norwegian',
  no: 'norwegian',
  pt: 'portuguese',
  ro: 'romanian',
  ru: 'russian',
  sl: 'slovene',
  sv: 'swedish',
  ta: 'tamil',
  tr: 'turkish',
};

type Stem = (word: string) => string;
const known = new Map<string, Stem>();

/** Stems come again and again; those of a bank are a few ten thousand. */
const MOST_REMEMBERED = 100_000;

/** `en` of `en-GB`. */
export const subtagOf = (language: string): string => language.split('-')[0]!.toLowerCase();

/** @param language BCP 47; words of a language without an algorithm are their own stems */
function stemmerOf(language: string): Stem {
  const subtag = subtagOf(language);
  const found = known.get(subtag);
  if (found) return found;
  const algorithm = ALGORITHMS[subtag];
  const stemmer = algorithm ? stemmers.newStemmer(algorithm) : undefined;
  const remembered = new Map<string, string>();
  const stem: Stem = (word) => {
    if (!stemmer || IS_UNSPACED.test(word)) return word;
    const before = remembered.get(word);
    if (before !== undefined) return before;
    // An accent is not typed by everybody, so it is gone on both sides before and after.
    const made = searchable(stemmer.stem(withoutArticle(word))) || word;
    if (remembered.size > MOST_REMEMBERED) remembered.clear();
    remembered.set(word, made);
    return made;
  };
  known.set(subtag, stem);
  return stem;
}

/** The Arabic article is written together with its word, and so are "and", "in" and the like before it. */
const withoutArticle = (word: string): string => word.replace(/^[وفبك]?(?:ال|لل)(?=\p{Script=Arabic}{2})/u, '');

/** Vowel signs, the hamza on a letter and the lengthening of a line are left out by many; two letters that end words are typed for each other. */
const arabicFolded = (text: string): string =>
  text
    .replaceAll(/\u0640|[\u064B-\u065F]|\u0670/gu, '')
    .replaceAll('ٱ', 'ا')
    .replaceAll('ى', 'ي')
    .replaceAll('ة', 'ه');

/** Text as terms are read from it: full-width letters, accents, capitals and the spellings of one Arabic letter are all one. */
const fold = (text: string): string => arabicFolded(searchable(text.normalize('NFKC')));

const pairs = (run: string): string[] => {
  const signs = [...run];
  return signs.length < 2 ? signs : signs.slice(1).map((sign, index) => signs[index]! + sign);
};

/** The words of a text, folded, in their order. */
export function surfacesOf(text: string): string[] {
  return [...fold(text).matchAll(WORDS)].flatMap(([found]) => {
    if (IS_UNSPACED.test(found)) return pairs(found);
    const bare = withoutEnds(found, /'/u);
    const word = bare.endsWith("'s") ? bare.slice(0, -2) : bare;
    return word === '' ? [] : [word];
  });
}

/**
 * The terms of a text, in their order.
 * @param language BCP 47 tag of the text
 */
export function termsOf(text: string, language: string): Term[] {
  const stem = stemmerOf(language);
  return surfacesOf(text).map((surface) => ({ surface, stem: stem(surface) }));
}

/** What a word may stand for, in any of these languages. */
export const stemsIn = (surface: string, languages: readonly string[]): string[] => [
  ...new Set(languages.map((language) => stemmerOf(language)(surface))),
];
