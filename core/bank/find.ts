import { distance } from 'fastest-levenshtein';
import { normalised, rarity, saturated } from './bm25.ts';
import { stemsIn, subtagOf, surfacesOf, termsOf } from './terms.ts';

/** What a banked remark is found by. */
export interface Findable {
  id: string;
  /** BCP 47. */
  language: string;
  name: string;
  description: string;
  tags: readonly string[];
  transcript: string;
}

/** How much a word counts where it stands; what somebody called a remark says most about it. */
const FIELDS = [
  { weight: 3, textOf: ({ name }: Findable) => name },
  { weight: 2, textOf: ({ tags }: Findable) => tags.join(' ') },
  { weight: 1.5, textOf: ({ description }: Findable) => description },
  { weight: 1, textOf: ({ transcript }: Findable) => transcript },
] as const;

/** How much of a hit is left where the word is only the beginning of one, or has so many typing errors. */
const BEGINNING = 0.7;
const MISTYPED = [1, 0.5, 0.25] as const;
/** Letters from which on so many typing errors are forgiven: in a short word one of them makes another word. */
const FORGIVEN = [0, 4, 8] as const;
/** Of the words that begin like what was typed, so many are looked at. */
const MOST_BEGINNINGS = 300;

interface Postings {
  /** Positions of the documents, ascending. */
  documents: number[];
  /** How often each has the word, weighted by field and length. */
  frequencies: number[];
}

/** What is looked through; made once for a bank. */
export interface BankIndex {
  ids: readonly string[];
  languages: readonly string[];
  /** By stem. */
  postings: ReadonlyMap<string, Postings>;
  /** Every word as it is written, in order, and the stems that it stands for. */
  surfaces: readonly string[];
  stemsOf: ReadonlyMap<string, ReadonlySet<string>>;
  byLength: ReadonlyMap<number, readonly string[]>;
}

/** Makes the index of a bank. 10,000 remarks take a second or two, so this belongs in a thread of its own. */
export function bankIndex(remarks: readonly Findable[]): BankIndex {
  const fields = remarks.map((remark) => FIELDS.map(({ textOf }) => termsOf(textOf(remark), remark.language)));
  const means = FIELDS.map((_, field) => mean(fields.map((own) => own[field]!.length).filter((length) => length > 0)));
  const postings = new Map<string, Postings>();
  const stemsOf = new Map<string, Set<string>>();
  fields.forEach((own, document) => {
    const counts = new Map<string, number>();
    own.forEach((terms, field) => {
      const each = FIELDS[field]!.weight * normalised(1, terms.length / means[field]!);
      for (const { surface, stem } of terms) {
        counts.set(stem, (counts.get(stem) ?? 0) + each);
        const stems = stemsOf.get(surface);
        if (stems) stems.add(stem);
        else stemsOf.set(surface, new Set([stem]));
      }
    });
    for (const [stem, frequency] of counts) {
      const own = postings.get(stem) ?? { documents: [], frequencies: [] };
      own.documents.push(document);
      own.frequencies.push(frequency);
      postings.set(stem, own);
    }
  });
  const surfaces = [...stemsOf.keys()].sort();
  return {
    ids: remarks.map(({ id }) => id),
    languages: [...new Set(remarks.map(({ language }) => subtagOf(language)))],
    ...{ postings, surfaces, stemsOf },
    byLength: byLength(surfaces),
  };
}

function byLength(surfaces: readonly string[]): Map<number, string[]> {
  const groups = new Map<number, string[]>();
  for (const surface of surfaces) {
    const group = groups.get(surface.length);
    if (group) group.push(surface);
    else groups.set(surface.length, [surface]);
  }
  return groups;
}

const mean = (values: readonly number[]): number =>
  values.length === 0 ? 1 : values.reduce((sum, value) => sum + value, 0) / values.length;

/** Stems that a typed word may stand for, and how sure that is, from 0 to 1. */
type Meant = Map<string, number>;

function add(meant: Meant, stems: Iterable<string>, share: number): void {
  for (const stem of stems) if ((meant.get(stem) ?? 0) < share) meant.set(stem, share);
}

function exactly(index: BankIndex, word: string): Meant {
  const meant: Meant = new Map();
  add(
    meant,
    stemsIn(word, index.languages).filter((stem) => index.postings.has(stem)),
    1,
  );
  return meant;
}

function asBeginning(index: BankIndex, word: string): Meant {
  const meant = exactly(index, word);
  const from = firstAtLeast(index.surfaces, word);
  for (let at = from; at < Math.min(from + MOST_BEGINNINGS, index.surfaces.length); at++) {
    const surface = index.surfaces[at]!;
    if (!surface.startsWith(word)) break;
    // What is nearly written out is nearly sure.
    add(meant, index.stemsOf.get(surface)!, BEGINNING + (0.25 * word.length) / surface.length);
  }
  return meant;
}

function mistyped(index: BankIndex, word: string): Meant {
  const meant = asBeginning(index, word);
  const most = FORGIVEN.findLastIndex((letters) => word.length >= letters);
  for (let length = word.length - most; length <= word.length + most + 1; length++)
    for (const surface of index.byLength.get(length) ?? []) {
      const errors = Math.min(most + 1, typingErrors(word, surface));
      if (errors <= most) add(meant, index.stemsOf.get(surface)!, MISTYPED[errors as 0 | 1 | 2]);
    }
  return meant;
}

/** Edits between a typed word and one that is there; two letters that changed places are one error. */
function typingErrors(word: string, surface: string): number {
  const edits = distance(word, surface);
  if (edits !== 2 || word.length !== surface.length) return edits;
  const at = [...word].findIndex((letter, index) => letter !== surface[index]);
  return word[at] === surface[at + 1] && word[at + 1] === surface[at] ? 1 : edits;
}

function firstAtLeast(sorted: readonly string[], word: string): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sorted[middle]! < word) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** The best score of each document for one typed word. */
function scored(index: BankIndex, meant: Meant): Map<number, number> {
  const scores = new Map<number, number>();
  for (const [stem, share] of meant) {
    const { documents, frequencies } = index.postings.get(stem)!;
    const weight = share * rarity(index.ids.length, documents.length);
    documents.forEach((document, at) => {
      const score = weight * saturated(frequencies[at]!);
      if (score > (scores.get(document) ?? 0)) scores.set(document, score);
    });
  }
  return scores;
}

/** Documents that have all words, or any, by the sum of their scores. */
function together(scores: readonly Map<number, number>[], all: boolean): Map<number, number> {
  const sums = new Map<number, number>();
  const [fewest, ...others] = [...scores].sort((a, b) => a.size - b.size);
  if (all) {
    for (const [document, score] of fewest ?? []) {
      let sum = score;
      for (const other of others) {
        const more = other.get(document);
        if (more === undefined) sum = NaN;
        else sum += more;
      }
      if (!Number.isNaN(sum)) sums.set(document, sum);
    }
    return sums;
  }
  for (const own of scores) for (const [document, score] of own) sums.set(document, (sums.get(document) ?? 0) + score);
  return sums;
}

interface Wanted {
  /** How many are wanted. */
  most: number;
  /** Whether one may be among them. */
  may?: (id: string) => boolean;
}

/**
 * Remarks that a query finds, the best first: first those with all its words or their beginnings, then with typing errors
 * forgiven, then with any of its words. Ranked by BM25F (S. Robertson, H. Zaragoza, M. Taylor: “Simple BM25 Extension to
 * Multiple Weighted Fields”, CIKM 2004).
 * @returns ids, at most as many as are wanted; none where the query has no words
 */
export function findRemarks(index: BankIndex, query: string, { most, may = () => true }: Wanted): string[] {
  const words = [...new Set(surfacesOf(query))];
  const found: string[] = [];
  const seen = new Set<number>();
  const take = (scores: ReadonlyMap<number, number>): boolean => {
    const best = [...scores]
      .filter(([document]) => !seen.has(document) && may(index.ids[document]!))
      .sort(([a, x], [b, y]) => y - x || a - b);
    for (const [document] of best.slice(0, most - found.length)) {
      seen.add(document);
      found.push(index.ids[document]!);
    }
    return found.length >= most;
  };
  if (words.length === 0) return [];
  const begun = words.map((word) => scored(index, asBeginning(index, word)));
  if (take(together(begun, true))) return found;
  const forgiven = words.map((word) => scored(index, mistyped(index, word)));
  if (take(together(forgiven, true))) return found;
  take(together(forgiven, false));
  return found;
}
