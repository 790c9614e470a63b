import stopwords from 'stopword';
import { subtagOf } from './terms.ts';

/** ISO 639-2 codes, by which the lists of frequent words are called, where they differ in more than their length. */
const LISTS: Record<string, readonly string[]> = {
  ar: stopwords.ara,
  de: stopwords.deu,
  en: stopwords.eng,
  es: stopwords.spa,
  fr: stopwords.fra,
  it: stopwords.ita,
  nl: stopwords.nld,
  pt: stopwords.por,
};
const frequent = new Map<string, ReadonlySet<string>>();

/** Words that any text is full of. */
export function frequentWords(language: string): ReadonlySet<string> {
  const subtag = subtagOf(language);
  const found = frequent.get(subtag) ?? new Set(LISTS[subtag] ?? []);
  frequent.set(subtag, found);
  return found;
}
