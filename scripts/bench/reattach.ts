import { reattacher, type Offsets } from '#core/anchor';
import { sentences } from '#core/folio';
import search from 'approx-string-match';
import { diffArrays } from 'diff';
import { createRequire } from 'node:module';
import { medianTimes, round } from './figure.ts';

/*
 * Real revisions: published versions of the same licence texts, as the SPDX licence list has them (package spdx-license-list).
 * What is right is decided without our own code: by exact search, and by the whole-text word diff of the package `diff`.
 */
export const REVISIONS: readonly (readonly [old: string, next: string])[] = [
  ['LGPL-2.0-only', 'LGPL-2.1-only'],
  ['GFDL-1.1-only', 'GFDL-1.2-only'],
  ['GFDL-1.2-only', 'GFDL-1.3-only'],
  ['GPL-1.0-only', 'GPL-2.0-only'],
  ['GPL-2.0-only', 'GPL-3.0-only'],
  ['GPL-3.0-only', 'AGPL-3.0-only'],
  ['MPL-1.0', 'MPL-1.1'],
  ['NPL-1.0', 'NPL-1.1'],
  ['RPL-1.1', 'RPL-1.5'],
  ['LPPL-1.1', 'LPPL-1.3a'],
  ['CPL-1.0', 'EPL-1.0'],
  ['EPL-1.0', 'EPL-2.0'],
  ['OSL-2.1', 'OSL-3.0'],
  ['EUPL-1.1', 'EUPL-1.2'],
  ['CDDL-1.0', 'CDDL-1.1'],
  ['APSL-1.2', 'APSL-2.0'],
  ['CC-BY-2.5', 'CC-BY-3.0'],
  ['CECILL-1.0', 'CECILL-2.0'],
  ['CERN-OHL-1.1', 'CERN-OHL-1.2'],
];

const require = createRequire(import.meta.url);
export const licence = (name: string): string =>
  (require(`spdx-license-list/licenses/${name}.json`) as { licenseText: string }).licenseText;

/** Without the line ends inside of paragraphs, as word processors keep text: a sentence is whole. */
const flowing = (text: string): string => text.replace(/([^\n])\n(?!\n)[ \t]*/g, '$1 ');

interface Case {
  passage: Offsets;
  /** Where it is in the new text; undefined where it was removed. */
  truth: Offsets | undefined;
}

/** Words without their white space, so that a line that is broken elsewhere is no change. */
interface Word extends Offsets {
  word: string;
}

const words = (text: string): Word[] =>
  [...text.matchAll(/\S+/g)].map(({ index, 0: word }) => ({ word, start: index, end: index + word.length }));

const flat = (text: string): string => text.replace(/\s+/g, ' ');
const MIN_WORDS = 4;

/** Sentences, and parts of them, as teachers mark both. */
function passagesOf(text: string): Offsets[] {
  return sentences(text).flatMap((sentence) => {
    const inner = words(text.slice(sentence.start, sentence.end));
    if (inner.length < MIN_WORDS) return [];
    const whole = { start: sentence.start, end: sentence.end };
    if (inner.length < 12) return [whole];
    const third = Math.floor(inner.length / 3);
    const part = {
      start: sentence.start + inner[third]!.start,
      end: sentence.start + inner[Math.min(inner.length - 1, third + 6)]!.end,
    };
    return [whole, part];
  });
}

export interface Cases {
  /** Word for word still there, once before and once after. */
  kept: Case[];
  /** At least half of the words are there, in order, between the same neighbours. */
  edited: Case[];
}

export function casesOf(oldText: string, newText: string): Cases {
  const [old, next] = [words(oldText), words(newText)];
  const target = wordTargets(old, next);
  const cases: Cases = { kept: [], edited: [] };
  for (const passage of passagesOf(oldText)) {
    const exact = flat(oldText.slice(passage.start, passage.end));
    const places = exactPlaces(next, exact.split(' '));
    if (places.length > 0) {
      const once = places.length === 1 && exactPlaces(old, exact.split(' ')).length === 1;
      if (once) cases.kept.push({ passage, truth: places[0]! });
      continue;
    }
    const own = old.flatMap((word, index) => (word.start >= passage.start && word.end <= passage.end ? [index] : []));
    const there = own.map((index) => target[index]!).filter((index) => index >= 0);
    if (there.length < own.length / 2 || there.at(-1)! - there[0]! > 2 * own.length) continue;
    cases.edited.push({ passage, truth: { start: next[there[0]!]!.start, end: next[there.at(-1)!]!.end } });
  }
  return cases;
}

/** Where each old word stands in the new text by the package `diff` (Myers' algorithm over whole texts). */
function wordTargets(old: Word[], next: Word[]): Int32Array {
  const target = new Int32Array(old.length).fill(-1);
  let [i, j] = [0, 0];
  for (const { added, removed, count } of diffArrays(
    old.map(({ word }) => word),
    next.map(({ word }) => word),
  )) {
    if (removed) i += count;
    else if (added) j += count;
    else for (let n = 0; n < count; n++) target[i++] = j++;
  }
  return target;
}

function exactPlaces(text: Word[], wanted: string[]): Offsets[] {
  return text.flatMap(({ start }, at) =>
    wanted.every((word, index) => text[at + index]?.word === word)
      ? [{ start, end: text[at + wanted.length - 1]!.end }]
      : [],
  );
}

const overlap = (a: Offsets, b: Offsets): number => Math.max(0, Math.min(a.end, b.end) - Math.max(a.start, b.start));
const isAt = (place: Offsets | undefined, truth: Offsets): boolean =>
  place !== undefined && overlap(place, truth) * 2 > Math.min(place.end - place.start, truth.end - truth.start);

interface Counts {
  passages: number;
  right: number;
  wrong: number;
  lost: number;
}

const none = (): Counts => ({ passages: 0, right: 0, wrong: 0, lost: 0 });

export interface Accuracy {
  kept: Counts;
  edited: Counts;
  removed: Counts;
}

export interface Miss {
  revision: string;
  group: keyof Accuracy;
  words: string;
  got: string;
  wanted: string;
}

/** How passages of one revision fare. Every tenth passage that is still there is taken out of the new text to be missed. */
export function accuracy(name: string, oldText: string, newText: string, misses: Miss[] = []): Accuracy {
  const result: Accuracy = { kept: none(), edited: none(), removed: none() };
  const { kept, edited } = casesOf(oldText, newText);
  const find = reattacher(oldText, newText);
  const count = (group: keyof Accuracy, { passage, truth }: Case, place: Offsets | undefined, text: string): void => {
    const counts = result[group];
    counts.passages++;
    const right = truth ? isAt(place, truth) : place === undefined;
    if (right) counts.right++;
    else if (place) counts.wrong++;
    else counts.lost++;
    if (!right)
      misses.push({
        revision: name,
        group,
        words: oldText.slice(passage.start, passage.end),
        got: place ? text.slice(place.start, place.end) : '',
        wanted: truth ? text.slice(truth.start, truth.end) : '',
      });
  };
  for (const one of kept) count('kept', one, find(one.passage).place, newText);
  for (const one of edited) count('edited', one, find(one.passage).place, newText);

  const taken = kept.filter((_, index) => index % 10 === 3);
  const shortened = withoutPassages(
    newText,
    taken.map(({ truth }) => truth!),
  );
  const findAgain = reattacher(oldText, shortened);
  for (const { passage } of taken)
    if (exactPlaces(words(shortened), flat(oldText.slice(passage.start, passage.end)).split(' ')).length === 0)
      count('removed', { passage, truth: undefined }, findAgain(passage).place, shortened);
  return result;
}

function withoutPassages(text: string, places: Offsets[]): string {
  const kept = [...places].sort((a, b) => b.start - a.start);
  return kept.reduce((left, { start, end }) => left.slice(0, start) + left.slice(end), text);
}

export interface Speed {
  words: number;
  anchors: number;
  milliseconds: number;
  baseline: string;
  baselineMilliseconds: number;
  ratio: number;
}

/** 60 sentences in about 5,000 words, against approximate matching of each quote over the whole text. */
export function speed(oldText: string, newText: string, runs = 31): Speed {
  const passages = sentences(oldText).filter(({ start, end }) => words(oldText.slice(start, end)).length >= MIN_WORDS);
  const anchors = Array.from({ length: 60 }, (_, index) => passages[Math.floor((index * passages.length) / 60)]!);
  const [ours, theirs] = medianTimes(
    runs,
    () => {
      const find = reattacher(oldText, newText);
      for (const passage of anchors) find(passage);
    },
    () => {
      for (const { start, end } of anchors) {
        const quote = oldText.slice(start, end);
        search(newText, quote, Math.min(256, Math.floor(quote.length / 2)));
      }
    },
  );
  return {
    words: words(newText).length,
    anchors: anchors.length,
    milliseconds: round(ours),
    baseline: 'approx-string-match, up to half of a quote in errors, each quote over the whole text',
    baselineMilliseconds: round(theirs),
    ratio: round(theirs / ours),
  };
}

/** All revisions together, and the speed. */
export function benchReattach(misses: Miss[] = []): object {
  // First, before the diffs of whole texts fill the memory.
  const quickness = speed(flowing(licence('RPL-1.1')), flowing(licence('RPL-1.5')));
  const total: Accuracy = { kept: none(), edited: none(), removed: none() };
  for (const [old, next] of REVISIONS) {
    const one = accuracy(`${old} → ${next}`, licence(old), licence(next), misses);
    for (const group of ['kept', 'edited', 'removed'] as const)
      for (const name of ['passages', 'right', 'wrong', 'lost'] as const) total[group][name] += one[group][name];
  }
  const share = ({ right, passages }: Counts): string => `${round((100 * right) / passages)} %`;
  return {
    revisions: REVISIONS.length,
    kept: { ...total.kept, share: share(total.kept), wanted: '98 % or more at the right place' },
    edited: { ...total.edited, share: share(total.edited), wanted: '90 % or more overlapping the right place' },
    removed: { ...total.removed, wanted: '0 wrong' },
    speed: {
      ...quickness,
      wanted: '100 ms or less for 60 anchors in 5,000 words, and a ratio of 10 or more',
    },
  };
}
