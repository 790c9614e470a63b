import { plain } from './plain.ts';

/** Where a passage is said to be: by offsets, by its words, or by both. */
export interface PassageQuery {
  start?: number | undefined;
  end?: number | undefined;
  exact?: string | undefined;
  prefix?: string | undefined;
  suffix?: string | undefined;
}

export interface Offsets {
  start: number;
  end: number;
}

/**
 * Finds the passage that is meant in the text it was made in. Where offsets and words disagree the words decide; of several
 * places with the same words, the one with the right words around it, then the one nearest to the offsets.
 * @returns undefined where it is not there
 */
export function locatePassage(text: string, query: PassageQuery): Offsets | undefined {
  const { start, end, exact } = query;
  const given = start !== undefined && end !== undefined && start >= 0 && start < end && end <= text.length;
  if (exact === undefined || exact === '') return given ? { start, end } : undefined;
  if (given && text.slice(start, end) === exact) return { start, end };
  const places = occurrences(text, exact);
  if (places.length > 0) return nearest(text, places, query);
  if (given && plain(text.slice(start, end)) === plain(exact)) return { start, end };
  const loose = looseOccurrences(text, exact);
  return loose.length > 0 ? nearest(text, loose, query) : undefined;
}

function occurrences(text: string, words: string): Offsets[] {
  const found: Offsets[] = [];
  for (let at = text.indexOf(words); at >= 0; at = text.indexOf(words, at + 1))
    found.push({ start: at, end: at + words.length });
  return found;
}

const QUOTES = `["'‘’‚‛′\`´“”„‟″«»]+`;
const DASHES = '[‐‑‒–—―−-]+';

/** Places where the words stand with other white space, quotes or dashes. */
function looseOccurrences(text: string, words: string): Offsets[] {
  const pattern = words
    .trim()
    .split(/(\s+|["'‘’‚‛′`´“”„‟″«»]+|[‐‑‒–—―−-]+)/u)
    .map((part) => {
      if (/^\s+$/.test(part)) return '\\s+';
      if (new RegExp(`^${QUOTES}$`, 'u').test(part)) return QUOTES;
      if (new RegExp(`^${DASHES}$`, 'u').test(part)) return DASHES;
      return part.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&');
    })
    .join('');
  if (pattern === '') return [];
  return [...text.matchAll(new RegExp(pattern, 'gu'))].map(({ index, 0: { length } }) => ({
    start: index,
    end: index + length,
  }));
}

function nearest(text: string, places: Offsets[], { start, prefix = '', suffix = '' }: PassageQuery): Offsets {
  const before = plain(prefix);
  const after = plain(suffix);
  const score = (place: Offsets): number =>
    sharedEnd(plain(text.slice(Math.max(0, place.start - prefix.length), place.start)), before) +
    sharedStart(plain(text.slice(place.end, place.end + suffix.length)), after);
  const distance = (place: Offsets): number => (start === undefined ? 0 : Math.abs(place.start - start));
  return places
    .map((place) => ({ place, score: score(place), distance: distance(place) }))
    .reduce((best, next) =>
      next.score > best.score || (next.score === best.score && next.distance < best.distance) ? next : best,
    ).place;
}

function sharedStart(a: string, b: string): number {
  let length = 0;
  while (length < a.length && length < b.length && a[length] === b[length]) length++;
  return length;
}

function sharedEnd(a: string, b: string): number {
  let length = 0;
  while (length < a.length && length < b.length && a.at(-1 - length) === b.at(-1 - length)) length++;
  return length;
}
