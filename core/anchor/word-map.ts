import { alignWords, increasing, type Block } from './align.ts';
import type { Words } from './tokens.ts';

/** Where each word of the old text went. */
export interface WordMap {
  /** Index of the word in the new text, or −1. */
  target: Int32Array;
  /** 1 for the words of the longest run that kept its order, 0 for those that were moved out of it. */
  inOrder: Uint8Array;
  /** How telling a word is: rare words weigh more. By old index. */
  weight: Float32Array;
  /** For each word of the new text the index of the old word that went there, or −1. */
  source: Int32Array;
}

/** A run of words this long is no coincidence, wherever it stands. */
const TELLING_RUN = 8;
/** How many words in a row must be the same, and stand only once in each text, to begin an alignment. */
const SEED = 4;
/** At least this weight of a sentence must have survived before its words count as one that was edited. */
const SENTENCE_KEPT = 0.45;
/** And so much alike must a sentence be that is sought anywhere in the text. */
const SENTENCE_FOUND = 0.5;

/** Words that stand more often than once in about sixty tell little about a sentence, but in a short text four times is not often. */
const tellingWeight = (total: number): number => Math.min(4, weightFor(4, total));

/** Maps the words of a text to those of its next version: what stayed, what was moved, what was edited in place. */
export function mapWords(old: Words, next: Words): WordMap {
  const map: WordMap = {
    target: new Int32Array(old.ids.length).fill(-1),
    inOrder: new Uint8Array(old.ids.length),
    weight: weights(old, next),
    source: new Int32Array(next.ids.length).fill(-1),
  };
  const blocks = exactBlocks(old, next);
  const chain = longestChain(blocks);
  for (const block of chain) claim(map, block);
  const moved = blocks.filter((block) => !chain.has(block) && isTelling(old, next, block));
  for (const block of moved) claim(map, block);
  alignGaps(old, next, map, chain);
  for (const block of moved) alignAround(old, next, map, block);
  dropCoincidences(old, next, map);
  followMovedSentences(old, next, map);
  markOrder(map);
  return map;
}

function markOrder({ target, inOrder }: WordMap): void {
  const rows: number[] = [];
  for (let row = 0; row < target.length; row++) if (target[row]! >= 0) rows.push(row);
  const columns = rows.map((row) => target[row]!);
  for (const index of increasing(columns)) inOrder[rows[index]!] = 1;
}

/** The inverse document frequency of each word over the sentences of both texts (Spärck Jones 1972), at least a little. */
function weights(old: Words, next: Words): Float32Array {
  const counts = new Int32Array(1 + Math.max(highest(old.ids), highest(next.ids)));
  for (const id of old.ids) counts[id]!++;
  for (const id of next.ids) counts[id]!++;
  const total = old.ids.length + next.ids.length;
  return Float32Array.from(old.ids, (id) => weightFor(counts[id]!, total));
}

function highest(ids: Int32Array): number {
  let most = 0;
  for (const id of ids) if (id > most) most = id;
  return most;
}

const weightFor = (count: number, total: number): number => 0.2 + Math.log(total / count);

function claim({ target, source }: WordMap, { old, next, length }: Block): void {
  for (let i = 0; i < length; i++) {
    if (target[old + i]! >= 0 || source[next + i]! >= 0) continue;
    target[old + i] = next + i;
    source[next + i] = old + i;
  }
}

/** Runs of the same words in both texts, begun where a run of {@link SEED} words stands once in each; the longest first. */
function exactBlocks(old: Words, next: Words): Block[] {
  const here = new RunTable(old.ids);
  const there = new RunTable(next.ids);
  const blocks: Block[] = [];
  let last: Block = { old: 0, next: 0, length: 0 };
  for (let at = 0; at + SEED <= old.ids.length; at++) {
    // Inside of the run before there is nothing to be found that it does not have already.
    const inside = at < last.old + last.length;
    const to = inside && isRun(at, at + last.next - last.old) ? -1 : there.only(old.ids, at);
    if (to < 0 || here.only(old.ids, at) < 0) continue;
    let before = 0;
    while (at - before > 0 && to - before > 0 && old.ids[at - before - 1] === next.ids[to - before - 1]) before++;
    let after = SEED;
    while (at + after < old.ids.length && to + after < next.ids.length && old.ids[at + after] === next.ids[to + after])
      after++;
    last = { old: at - before, next: to - before, length: before + after };
    blocks.push(last);
  }
  return blocks.sort((a, b) => b.length - a.length);

  function isRun(at: number, to: number): boolean {
    for (let i = 0; i < SEED; i++) if (old.ids[at + i] !== next.ids[to + i]) return false;
    return true;
  }
}

/** All runs of {@link SEED} words of a text, to be looked up by their words. */
class RunTable {
  readonly #ids: Int32Array;
  readonly #mask: number;
  /** The place of a run plus one; below zero where it stands more than once. */
  readonly #slots: Int32Array;

  constructor(ids: Int32Array) {
    let size = 16;
    while (size < 3 * ids.length) size *= 2;
    this.#ids = ids;
    this.#mask = size - 1;
    this.#slots = new Int32Array(size);
    for (let at = 0; at + SEED <= ids.length; at++) {
      const slot = this.#slot(ids, at);
      this.#slots[slot] = this.#slots[slot] === 0 ? at + 1 : -Math.abs(this.#slots[slot]!);
    }
  }

  /** Where the run that begins at some place of some text stands here; −1 where it does not, or more than once. */
  only(ids: Int32Array, at: number): number {
    return Math.max(-1, this.#slots[this.#slot(ids, at)]! - 1);
  }

  #slot(ids: Int32Array, at: number): number {
    let hash = 0;
    for (let i = at; i < at + SEED; i++) hash = Math.imul(hash ^ ids[i]!, 0x9e3779b1);
    let slot = (hash ^ (hash >>> 15)) & this.#mask;
    while (this.#slots[slot] !== 0 && !this.#isAt(Math.abs(this.#slots[slot]!) - 1, ids, at))
      slot = (slot + 1) & this.#mask;
    return slot;
  }

  #isAt(place: number, ids: Int32Array, at: number): boolean {
    for (let i = 0; i < SEED; i++) if (this.#ids[place + i] !== ids[at + i]) return false;
    return true;
  }
}

/** The blocks that can all be kept in their order with the most words: the longest increasing subsequence, weighted. */
function longestChain(blocks: readonly Block[]): Set<Block> {
  const sorted = [...blocks].sort((a, b) => a.old - b.old || a.next - b.next);
  const best: { length: number; before: number }[] = [];
  sorted.forEach((block, index) => {
    let length = 0;
    let before = -1;
    for (let i = 0; i < index; i++) {
      const other = sorted[i]!;
      const fits = other.old + other.length <= block.old && other.next + other.length <= block.next;
      if (fits && best[i]!.length > length) [length, before] = [best[i]!.length, i];
    }
    best.push({ length: length + block.length, before });
  });
  const chain = new Set<Block>();
  let at = best.reduce((top, { length }, index) => (length > (best[top]?.length ?? 0) ? index : top), best.length - 1);
  for (; at >= 0; at = best[at]!.before) chain.add(sorted[at]!);
  return chain;
}

/** Whether a run that stands elsewhere was moved there, and is no phrase that happens to be used twice. */
function isTelling(old: Words, next: Words, block: Block): boolean {
  return (
    block.length >= TELLING_RUN ||
    (isSentence(old, block.old, block.length) && isSentence(next, block.next, block.length))
  );
}

/** Whether some words are one or more sentences from the first word to the last. */
function isSentence({ sentences }: Words, at: number, length: number): boolean {
  return sentences[at - 1] !== sentences[at] && sentences[at + length - 1] !== sentences[at + length];
}

/** Between two runs that stayed, whatever was edited there is aligned word by word. */
function alignGaps(old: Words, next: Words, map: WordMap, chain: ReadonlySet<Block>): void {
  const ends = { old: old.ids.length, next: next.ids.length, length: 0 };
  let from = { old: 0, next: 0 };
  for (const block of [...[...chain].sort((a, b) => a.old - b.old), ends]) {
    alignFree(old, next, map, { from: from.old, to: block.old }, { from: from.next, to: block.next });
    from = { old: block.old + block.length, next: block.next + block.length };
  }
}

/** The rest of the sentences in which a moved run begins and ends came along with it, and may have been edited. */
function alignAround(old: Words, next: Words, map: WordMap, block: Block): void {
  const around = (
    { sentences }: Words,
    first: number,
    last: number,
  ): { before: SentenceWords; after: SentenceWords } => {
    let [from, to] = [first, last + 1];
    while (sentences[from - 1] === sentences[first]) from--;
    while (sentences[to] === sentences[last]) to++;
    return { before: { from, to: first }, after: { from: last + 1, to } };
  };
  const here = around(old, block.old, block.old + block.length - 1);
  const there = around(next, block.next, block.next + block.length - 1);
  alignFree(old, next, map, here.before, there.before);
  alignFree(old, next, map, here.after, there.after);
}

/** Aligns those words of two stretches that went nowhere and came from nowhere yet. */
function alignFree(old: Words, next: Words, map: WordMap, here: SentenceWords, there: SentenceWords): void {
  const free = (marks: Int32Array, { from, to }: SentenceWords): number[] => {
    const indices: number[] = [];
    for (let i = from; i < to; i++) if (marks[i]! < 0) indices.push(i);
    return indices;
  };
  for (const [a, b] of alignWords(free(map.target, here), free(map.source, there), old.ids, next.ids, map.weight))
    claim(map, { old: a, next: b, length: 1 });
}

interface SentenceWords {
  from: number;
  to: number;
}

function sentenceRanges({ sentences, sentenceCount }: Words): SentenceWords[] {
  const ranges: SentenceWords[] = Array.from({ length: sentenceCount }, () => ({ from: 0, to: 0 }));
  sentences.forEach((sentence, index) => {
    const range = ranges[sentence]!;
    if (range.to === 0) range.from = index;
    range.to = index + 1;
  });
  return ranges;
}

function keptShare({ target, weight }: WordMap, { from, to }: SentenceWords): number {
  let kept = 0;
  let all = 0;
  for (let i = from; i < to; i++) {
    all += weight[i]!;
    if (target[i]! >= 0) kept += weight[i]!;
  }
  return all === 0 ? 0 : kept / all;
}

/**
 * A sentence of which only a few words are found was removed, and the words belong to what was written in its place; a single
 * word of a heading that is found inside of a long sentence is not the heading either.
 */
function dropCoincidences(old: Words, next: Words, map: WordMap): void {
  const there = sentenceRanges(next);
  for (const range of sentenceRanges(old)) {
    const kept = keptShare(map, range);
    if (kept === 0 || (kept >= SENTENCE_KEPT && !isStray(range))) continue;
    let run = 0;
    for (let i = range.from; i < range.to; i++) {
      const to = map.target[i]!;
      run = to >= 0 && to === (map.target[i - 1] ?? -2) + 1 ? run + 1 : 1;
      if (to < 0 || isInRun(i)) continue;
      map.target[i] = -1;
      map.source[to] = -1;
    }
  }

  function isStray({ from, to }: SentenceWords): boolean {
    if (to - from > 3) return false;
    const first = map.target[from]!;
    const sentence = first < 0 ? undefined : there[next.sentences[first]!];
    if (!sentence || sentence.to - sentence.from <= 2 * (to - from) + 1) return false;
    return map.target[from - 1] !== first - 1 && map.target[to] !== (map.target[to - 1] ?? -1) + 1;
  }

  /** Part of at least {@link SEED} words that are mapped one after the other. */
  function isInRun(index: number): boolean {
    let length = 1;
    for (let i = index; length < SEED && i > 0 && follows(i); i--) length++;
    for (let i = index + 1; length < SEED && i < map.target.length && follows(i); i++) length++;
    return length >= SEED;
  }

  function follows(i: number): boolean {
    return map.target[i]! >= 0 && map.target[i - 1]! >= 0 && map.target[i] === map.target[i - 1]! + 1;
  }
}

/** Sentences that are gone from their place and come up, edited, at another. Each is paired with the one it is most like, and no other. */
function followMovedSentences(old: Words, next: Words, map: WordMap): void {
  const gone = sentenceRanges(old).filter((range) => isLong(range) && keptShare(map, range) < SENTENCE_KEPT);
  const come = sentenceRanges(next).filter((range) => isLong(range) && freeShare(map, range) > 0.5);
  if (gone.length === 0 || come.length === 0) return;
  const telling = tellingWeight(old.ids.length + next.ids.length);
  const weightOf = new Map<number, number>();
  old.ids.forEach((id, index) => weightOf.set(id, map.weight[index]!));
  const taken = new Set<SentenceWords>();
  for (const { here, there } of likePairs(gone, come)) {
    if (taken.has(here) || taken.has(there)) continue;
    taken.add(here).add(there);
    pairWords(here, there);
  }

  /** Pairs that are alike by Dice's coefficient (1945) over telling words and pairs of words, the most alike first. */
  function likePairs(gone: SentenceWords[], come: SentenceWords[]): { here: SentenceWords; there: SentenceWords }[] {
    const byFeature = new Map<number, number[]>();
    const sums = come.map((range, index) => {
      const own = features(next.ids, range);
      for (const feature of own.keys()) {
        const list = byFeature.get(feature);
        if (list) list.push(index);
        else byFeature.set(feature, [index]);
      }
      return sum(own);
    });
    const shared = new Float64Array(come.length);
    const pairs = gone.flatMap((here) => {
      const own = features(old.ids, here);
      const total = sum(own);
      shared.fill(0);
      for (const [feature, value] of own) for (const index of byFeature.get(feature) ?? []) shared[index]! += value;
      return come.flatMap((there, index) => {
        const dice = (2 * shared[index]!) / (total + sums[index]!);
        return dice >= SENTENCE_FOUND ? [{ here, there, dice }] : [];
      });
    });
    return pairs.sort((a, b) => b.dice - a.dice);
  }

  function features(ids: Int32Array, { from, to }: SentenceWords): Map<number, number> {
    const found = new Map<number, number>();
    for (let i = from; i < to; i++) {
      const weight = weightOf.get(ids[i]!) ?? telling;
      if (weight >= telling) found.set(ids[i]!, weight);
      if (i > from) found.set(-1 - (ids[i - 1]! * 1_000_003 + ids[i]!), telling);
    }
    return found;
  }

  function pairWords(here: SentenceWords, there: SentenceWords): void {
    for (let i = here.from; i < here.to; i++) {
      if (map.target[i]! >= 0) map.source[map.target[i]!] = -1;
      map.target[i] = -1;
    }
    const indices = ({ from, to }: SentenceWords): number[] =>
      Array.from({ length: to - from }, (_, step) => from + step);
    const free = indices(there).filter((index) => map.source[index]! < 0);
    for (const [a, b] of alignWords(indices(here), free, old.ids, next.ids, map.weight))
      claim(map, { old: a, next: b, length: 1 });
  }
}

const isLong = ({ from, to }: SentenceWords): boolean => to - from >= SEED;

const sum = (found: Map<number, number>): number => {
  let total = 0;
  for (const value of found.values()) total += value;
  return total;
};

function freeShare({ source }: WordMap, { from, to }: SentenceWords): number {
  let free = 0;
  for (let i = from; i < to; i++) if (source[i]! < 0) free++;
  return free / (to - from);
}
