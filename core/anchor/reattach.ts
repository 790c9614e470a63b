import { locatePassage, type Offsets, type PassageQuery } from './locate.ts';
import { dense } from './plain.ts';
import { Lexicon, wordRange, wordsOf, type Words } from './tokens.ts';
import { mapWords, type WordMap } from './word-map.ts';

/**
 * What became of a passage in the next version: `same` words at their place, the same words `moved` out of their order,
 * `changed` words, or `lost`.
 */
export type ReattachStatus = 'same' | 'moved' | 'changed' | 'lost';

export interface Reattached {
  status: ReattachStatus;
  /** UTF-16 offsets in the new text; absent where the passage is lost. */
  place?: Offsets | undefined;
  /** 0 to 1: how sure it is that this is the place, or, where it is lost, that there is none. */
  confidence: number;
}

/** So much of a passage's weight must be found in one place. */
const KEPT = 0.5;
/** And so much of the new passage must come from it: less is a stretch of other words with some of these in between. */
const DENSITY = 0.3;
/** The edges of a passage reach over new words up to this many, for the words that were struck there. */
const GROWTH = { times: 3, words: 6 };
/** A passage that was replaced to the last word is known by its neighbours only while it is this short. */
const MAX_REPLACED_WORDS = 3;

/**
 * Finds passages of a text in its next version. The texts are compared once, however many passages are asked for.
 * @param items where entries of lists begin, as UTF-16 offsets, if that is known: a passage does not spread from one into the next
 */
export function reattacher(
  oldText: string,
  newText: string,
  items: { old?: ReadonlySet<number>; next?: ReadonlySet<number> } = {},
): (query: PassageQuery) => Reattached {
  const lexicon = new Lexicon();
  const old = wordsOf(oldText, lexicon, items.old);
  const next = wordsOf(newText, lexicon, items.next);
  let map: WordMap | undefined;
  return (query) => {
    const passage = locatePassage(oldText, query);
    if (!passage) return { status: 'lost', confidence: 0 };
    const range = wordRange(old, passage.start, passage.end);
    if (range.from >= range.to) return bySigns(oldText, newText, passage);
    map ??= mapWords(old, next);
    return reattachWords(old, next, map, passage, range);
  };
}

/** A passage without any word, e.g. a row of asterisks, is found where it stands only once in each text. */
function bySigns(oldText: string, newText: string, { start, end }: Offsets): Reattached {
  const signs = oldText.slice(start, end);
  const only = (text: string): number => {
    const at = text.indexOf(signs);
    return at >= 0 && text.indexOf(signs, at + 1) < 0 ? at : -1;
  };
  const at = only(oldText) < 0 ? -1 : only(newText);
  if (at < 0) return { status: 'lost', confidence: 0.5 };
  return { status: 'same', place: { start: at, end: at + signs.length }, confidence: 0.8 };
}

interface WordRange {
  from: number;
  to: number;
}

function reattachWords(old: Words, next: Words, map: WordMap, passage: Offsets, range: WordRange): Reattached {
  const group = heaviestGroup(map, range, foreignLines(old, next, map, range));
  const kept = heaviestGroup(map, range)?.kept ?? 0;
  const elsewhere = (): Reattached => onlyCopy(old, next, map, passage, range) ?? { status: 'lost', confidence: 0.9 };
  if (!group) return replaced(old, next, map, range) ?? elsewhere();
  const found = widened(old, next, map, range, withEdges(old, next, map, range, group));
  const place = placeOf(old, next, passage, range, found);
  const moved = group.moved * 2 > group.words;
  if (readsTheSame(old.text.slice(passage.start, passage.end), next.text.slice(place.start, place.end)))
    return { status: moved ? 'moved' : 'same', place, confidence: 1 };
  const density = group.weight / weightOf(map, found, group);
  if (kept >= KEPT && density >= DENSITY)
    return { status: 'changed', place, confidence: Math.min(0.95, (group.kept + density) / 2) };
  if (kept < KEPT) return replaced(old, next, map, range, found) ?? elsewhere();
  return elsewhere();
}

const readsTheSame = (one: string, other: string): boolean => one === other || dense(one) === dense(other);

interface Group {
  /** First and last word in the new text. */
  low: number;
  high: number;
  /** Weight of the words that are there, and which share of the passage that is. */
  weight: number;
  kept: number;
  words: number;
  moved: number;
}

/** Where the words of a passage went that stood in one line: whether two words are of different lines, one of which was not made from it. */
type Parted = (one: number, other: number) => boolean;

/**
 * A line from which a passage was split off, or in two, has most of its words from there; a neighbour that only took over some of them
 * has not, and is no part of the passage.
 */
function foreignLines(old: Words, next: Words, { source }: WordMap, { from, to }: WordRange): Parted {
  const line = old.lines[from]!;
  if (old.lines[to - 1] !== line) return () => false;
  const isOwn = (index: number): boolean => {
    const [first, last] = [firstOf(next.lines, index), lastOf(next.lines, index)];
    let own = 0;
    for (let i = first; i <= last; i++) own += Number(source[i]! >= 0 && old.lines[source[i]!] === line);
    return 2 * own > last - first + 1;
  };
  return (one, other) => next.lines[one] !== next.lines[other] && !(isOwn(one) && isOwn(other));
}

/** The first and the last word of a passage that was found, in the old text, and where that is in the new one. */
interface Found {
  first: number;
  last: number;
  low: number;
  high: number;
}

/** Of the places to which the words of a passage went, the one with most of its weight. */
function heaviestGroup(
  { target, weight, inOrder }: WordMap,
  { from, to }: WordRange,
  parted: Parted = () => false,
): Group | undefined {
  const all: number[] = [];
  let total = 0;
  for (let i = from; i < to; i++) {
    total += weight[i]!;
    if (target[i]! >= 0) all.push(i);
  }
  all.sort((a, b) => target[a]! - target[b]!);
  const reach = Math.max(12, to - from);
  let best: Group | undefined;
  let group: Group | undefined;
  for (const index of all) {
    const at = target[index]!;
    if (!group || at - group.high > reach || parted(group.high, at))
      group = { low: at, high: at, weight: 0, kept: 0, words: 0, moved: 0 };
    group.high = at;
    group.weight += weight[index]!;
    group.kept = group.weight / total;
    group.words++;
    group.moved += Number(inOrder[index] === 0);
    if (!best || group.weight > best.weight) best = group;
  }
  return best;
}

/** The average word of the passage stands for new words, of which the old text knows no weight. */
function weightOf({ source, weight }: WordMap, { low, high }: { low: number; high: number }, group: Group): number {
  const usual = group.weight / group.words;
  let sum = 0;
  for (let i = low; i <= high; i++) sum += source[i]! >= 0 ? weight[source[i]!]! : usual;
  return sum;
}

/**
 * Where something was moved or taken out, the words at its edges may be taken for the same words of its neighbours. Those that
 * stand beside the found ones are the passage's own if nobody else claims them, or if they are of the same sentence in both texts.
 */
function withEdges(old: Words, next: Words, { target, source }: WordMap, { from, to }: WordRange, group: Group): Found {
  let { low, high } = group;
  let first = from + target.subarray(from, to).indexOf(low);
  let last = from + target.subarray(from, to).lastIndexOf(high);
  const own = (index: number): boolean => source[index]! < 0 || (source[index]! >= from && source[index]! < to);
  const together = ({ sentences }: Words, one: number, other: number): boolean => sentences[one] === sentences[other];
  const belongs = (i: number, to: number, inner: 1 | -1): boolean =>
    old.ids[i] === next.ids[to] && (own(to) || (together(old, i, i + inner) && together(next, to, to + inner)));
  for (; first > from && low > 0 && belongs(first - 1, low - 1, 1); first--) low--;
  for (; last + 1 < to && high + 1 < next.ids.length && belongs(last + 1, high + 1, -1); last++) high++;
  return { first, last, low, high };
}

/**
 * Where the first or last words of a passage were replaced, the place reaches to the neighbours that stayed, or to the end of its line
 * if the passage did.
 */
function widened(
  old: Words,
  next: Words,
  { target, source }: WordMap,
  { from, to }: WordRange,
  { first, last, low, high }: Found,
): Pick<Found, 'low' | 'high'> {
  const place = { low, high };
  const lead = first - from;
  if (lead > 0) {
    const edge = firstOf(next.lines, low);
    const beginsLine = old.lines[from - 1] !== old.lines[from];
    const neighbour = beginsLine ? edge - 1 : target[from - 1]!;
    const reach = Math.max(neighbour + 1, edge);
    const near = low - reach <= GROWTH.times * lead + GROWTH.words;
    if (near && (beginsLine || neighbour >= 0) && neighbour < low && isFree(source, reach, low)) place.low = reach;
  }
  const trail = to - 1 - last;
  if (trail > 0) {
    const edge = lastOf(next.lines, high);
    const neighbour = old.lines[to - 1] === old.lines[to] ? target[to]! : edge + 1;
    const reach = Math.min(neighbour - 1, edge);
    const near = reach - high <= GROWTH.times * trail + GROWTH.words;
    if (near && neighbour > high && isFree(source, high + 1, reach + 1)) place.high = reach;
  }
  return place;
}

function isFree(source: Int32Array, from: number, to: number): boolean {
  for (let i = from; i < to; i++) if (source[i]! >= 0) return false;
  return true;
}

/**
 * Words of a sentence that stayed were replaced by what stands there now: between the neighbours that stayed, or from the
 * beginning or to the end of that sentence.
 * @param found the few of them that are still there
 */
function replaced(
  old: Words,
  next: Words,
  map: WordMap,
  range: WordRange,
  found?: { low: number; high: number },
): Reattached | undefined {
  const { target, source } = map;
  const { from, to } = range;
  const sentence = old.sentences[from]!;
  const inside = (index: number): boolean => old.sentences[index] === sentence;
  if (!inside(to - 1) || !(inside(from - 1) || inside(to))) return undefined;
  const around = keptAround(old, map, range);
  if (around < KEPT) return undefined;
  const beside = inside(from - 1) ? target[from - 1]! : target[to]!;
  if (beside < 0) return undefined;
  const low = inside(from - 1) ? target[from - 1]! + 1 : firstOf(next.sentences, beside);
  const high = inside(to) ? target[to]! - 1 : lastOf(next.sentences, beside);
  if ((inside(to) && target[to]! < 0) || low > high) return undefined;
  const growth = (high - low + 1) / (to - from);
  if (growth > 2 || growth < 0.5) return undefined;
  if (found ? found.low < low || found.high > high : to - from > MAX_REPLACED_WORDS || !isFree(source, low, high + 1))
    return undefined;
  const place = { start: next.starts[low]!, end: next.ends[high]! };
  return { status: 'changed', place, confidence: 0.4 * around + (found ? 0.2 : 0) };
}

/** The first word of the sentence, or the line, of a word. */
function firstOf(parts: Int32Array, index: number): number {
  let first = index;
  while (parts[first - 1] === parts[index]) first--;
  return first;
}

function lastOf(parts: Int32Array, index: number): number {
  let last = index;
  while (parts[last + 1] === parts[index]) last++;
  return last;
}

/** Which share of the rest of its sentence is still there. */
function keptAround(old: Words, { target, weight }: WordMap, { from, to }: WordRange): number {
  const sentence = old.sentences[from]!;
  let [kept, all] = [0, 0];
  const count = (i: number): void => {
    all += weight[i]!;
    if (target[i]! >= 0) kept += weight[i]!;
  };
  for (let i = from - 1; i >= 0 && old.sentences[i] === sentence; i--) count(i);
  for (let i = to; i < old.ids.length && old.sentences[i] === sentence; i++) count(i);
  return all === 0 ? 0 : kept / all;
}

/** A passage that was moved alone: all its words in a row, at the only place that nothing else has come to. */
function onlyCopy(
  old: Words,
  next: Words,
  { source }: WordMap,
  passage: Offsets,
  { from, to }: WordRange,
): Reattached | undefined {
  const length = to - from;
  const line = isLine(old, from, to);
  if (length < 4 && !line) return undefined;
  const places: number[] = [];
  for (let at = 0; at + length <= next.ids.length && places.length < 2; at++) {
    let same = 0;
    while (same < length && next.ids[at + same] === old.ids[from + same] && source[at + same]! < 0) same++;
    if (same === length && (!line || isLine(next, at, at + length))) places.push(at);
  }
  if (places.length !== 1) return undefined;
  const found = { low: places[0]!, high: places[0]! + length - 1 };
  return { status: 'moved', place: placeOf(old, next, passage, { from, to }, found), confidence: 0.7 };
}

/** Whether words are all of a line, as those of a heading are. */
function isLine({ text, starts, ends }: Words, from: number, to: number): boolean {
  const before = text.slice(from > 0 ? ends[from - 1] : 0, starts[from]);
  const after = text.slice(ends[to - 1], to < starts.length ? starts[to] : text.length);
  return (from === 0 || before.includes('\n')) && (to === starts.length || after.includes('\n'));
}

/** The place of words, with the signs before the first and after the last that belonged to the passage. */
function placeOf(
  old: Words,
  next: Words,
  passage: Offsets,
  { from, to }: WordRange,
  { low, high }: { low: number; high: number },
): Offsets {
  const lead = old.text.slice(passage.start, Math.max(passage.start, old.starts[from]!));
  const trail = old.text.slice(Math.min(passage.end, old.ends[to - 1]!), passage.end);
  const floor = low > 0 ? next.ends[low - 1]! : 0;
  const ceiling = high + 1 < next.ids.length ? next.starts[high + 1]! : next.text.length;
  const before = next.text.slice(floor, next.starts[low]!);
  const after = next.text.slice(next.ends[high]!, ceiling);
  // A passage that began or ended inside of a word does so still, if the word is the same.
  const cutStart = Math.max(0, passage.start - old.starts[from]!);
  const cutEnd = Math.max(0, old.ends[to - 1]! - passage.end);
  const same = (a: number, b: number): boolean =>
    old.text.slice(old.starts[a]!, old.ends[a]!) === next.text.slice(next.starts[b]!, next.ends[b]!);
  return {
    start: next.starts[low]! - signsAtEnd(before, lead) + (cutStart > 0 && same(from, low) ? cutStart : 0),
    end: next.ends[high]! + signsAtStart(after, trail) - (cutEnd > 0 && same(to - 1, high) ? cutEnd : 0),
  };
}

/** Which sign stands for which: quotes and dashes of any form count as one. */
function kindOfSign(sign: string): string {
  if (/["'‘’‚‛′`´“”„‟″«»]/u.test(sign)) return '"';
  if (/[‐‑‒–—―−-]/u.test(sign)) return '-';
  if (/[.!?…]/u.test(sign)) return '.';
  if (/[,;:]/u.test(sign)) return ',';
  return sign;
}

/** How much of the beginning of `text` is the signs of `wanted`, in their order; white space between them belongs to it. */
function signsAtStart(text: string, wanted: string): number {
  const signs = [...wanted].filter((sign) => !/\s/.test(sign)).map(kindOfSign);
  let length = 0;
  let at = 0;
  for (const sign of text) {
    at += sign.length;
    if (signs.length === 0) break;
    if (/\s/.test(sign)) continue;
    if (kindOfSign(sign) !== signs[0]) {
      // A sign that is gone is passed over; one that is new ends it.
      const later = signs.indexOf(kindOfSign(sign));
      if (later < 0) break;
      signs.splice(0, later);
    }
    // “...” may have become “…”, and the other way round.
    const dots = kindOfSign(sign) === '.';
    do signs.shift();
    while (dots && sign === '…' && signs[0] === '.');
    length = at;
  }
  return length;
}

const backwards = (text: string): string => [...text].reverse().join('');
const signsAtEnd = (text: string, wanted: string): number => signsAtStart(backwards(text), backwards(wanted));
