import type { Span } from '../audio/edit.ts';

/** What is known of a take in which the speaker went from passage to passage; all times in seconds. */
export interface TalkTake {
  /** Of the whole take. */
  duration: number;
  /** Where nothing is said, in any order. */
  pauses: readonly Span[];
  /** When each passage was chosen; the first of them opens the take. */
  selections: readonly { at: number }[];
  /** What was said, with punctuation where it is known. */
  words?: readonly (Span & { word: string })[] | undefined;
  /** When a kind was chosen for the remark in hand. */
  keys?: readonly { at: number }[] | undefined;
}

/** Where one remark ends and the next begins, and how much that is to be doubted: from 0, certain, to 1. */
export interface Cut {
  at: number;
  doubt: number;
}

/*
 * How much more likely a change of passage is, as natural logarithms of odds. The weights were fitted to invented takes
 * (`invented-take.ts`); they are nobody's measurement of people.
 */
/** For each second of the pause, up to the longest that tells more. */
const PER_SECOND_OF_PAUSE = 3;
const LONGEST_PAUSE = 1.6;
/** People choose a passage from 1.5 s before to 1 s after their first word about it; outside of that it soon gets unlikely. */
const EARLIEST = 1.5;
const LATEST = 1;
const PER_SECOND_OUTSIDE = 3;
/** Within, a choice in the pause itself is a little more likely. */
const PER_SECOND_FROM_PAUSE = 0.4;
const AFTER_A_SENTENCE = 1.6;
const WITHIN_A_SENTENCE = -2.4;
/** A key that would fall to the remark before although the next passage was chosen already, or the other way round. */
const KEY_ASTRAY = -0.5;
/** A change without any pause. */
const WITHOUT_PAUSE = -2;

const LAST_OF_SENTENCE = /[.!?…。！？؟।]["'”’»)\]]*$/u;
/** Clocks of words and of pauses differ by so much, in seconds. */
const SLACK = 0.15;

interface Candidate {
  at: number;
  pause?: Span;
}

/**
 * Splits a take that went through several passages at the pauses where the speaker went on: one cut for each selection but the
 * first, in their order. The likeliest cuts together are found by dynamic programming; the doubt of each is what all other ways
 * to cut leave to other pauses (forward-backward algorithm, L. R. Rabiner, Proc. IEEE 77 (1989), section III).
 *
 * @returns cuts in the middle of their pauses, in seconds; where there is no pause left for one, at its selection and
 *   with a doubt of 1
 */
export function splitTake(take: TalkTake): Cut[] {
  const selections = take.selections
    .map(({ at }) => Math.min(Math.max(at, 0), take.duration))
    .toSorted((a, b) => a - b);
  const changes = selections.slice(1);
  if (changes.length === 0) return [];
  const candidates = candidatesOf(take, changes);
  const scores = changes.map((at) => candidates.map((one) => likeliness(take, one, at)));
  const best = likeliestPath(scores);
  const shares = marginals(scores);
  return best.map((chosen, index) => {
    const { at, pause } = candidates[chosen]!;
    return { at, doubt: pause ? 1 - Math.min(1, shares[index]![chosen]!) : 1 };
  });
}

/** Every pause inside of the take, and the moment of every selection; in their order. */
function candidatesOf({ duration, pauses }: TalkTake, changes: readonly number[]): Candidate[] {
  const inside = pauses.filter(({ start, end }) => start > 0 && end < duration && end > start);
  return [
    ...inside.map((pause) => ({ at: (pause.start + pause.end) / 2, pause })),
    ...changes.map((at) => ({ at })),
  ].toSorted((a, b) => a.at - b.at);
}

function likeliness({ words, keys = [] }: TalkTake, { at: cut, pause }: Candidate, at: number): number {
  if (!pause) return cut === at ? WITHOUT_PAUSE : -Infinity;
  const length = Math.min(pause.end - pause.start, LONGEST_PAUSE);
  const afterFirstWord = at - pause.end;
  const outside = Math.max(0, -EARLIEST - afterFirstWord, afterFirstWord - LATEST);
  const fromPause = Math.max(0, pause.start - at, afterFirstWord);
  const astray = keys.filter((key) => (key.at > at && key.at < cut) || (key.at > cut && key.at < at)).length;
  return (
    length * PER_SECOND_OF_PAUSE -
    outside * PER_SECOND_OUTSIDE -
    fromPause * PER_SECOND_FROM_PAUSE +
    sentenceEvidence(words, pause) +
    astray * KEY_ASTRAY
  );
}

/** What a machine wrote down without any punctuation says nothing about sentences. */
function sentenceEvidence(words: TalkTake['words'], pause: Span): number {
  const before = words?.findLast(({ end }) => end <= pause.start + SLACK);
  if (!before || !words!.some(({ word }) => LAST_OF_SENTENCE.test(word))) return 0;
  return LAST_OF_SENTENCE.test(before.word) ? AFTER_A_SENTENCE : WITHIN_A_SENTENCE;
}

/** For each change the candidate that it has in the likeliest way to cut; each later than that of the change before. */
function likeliestPath(scores: readonly (readonly number[])[]): number[] {
  let ends: { score: number; path: number[] }[] = [{ score: 0, path: [] }];
  for (const row of scores) {
    let best = { score: -Infinity, path: [] as number[] };
    const next: typeof ends = [];
    row.forEach((score, at) => {
      const before = scores[0] === row ? ends[0]! : best;
      next[at] = { score: before.score + score, path: [...before.path, at] };
      if (scores[0] !== row && ends[at]!.score > best.score) best = ends[at]!;
    });
    ends = next;
  }
  return ends.reduce((best, one) => (one.score > best.score ? one : best)).path;
}

/** For each change how likely each candidate is, over all ways to cut. */
function marginals(scores: readonly (readonly number[])[]): number[][] {
  const forward = sweep(scores);
  const backward = sweep(scores.map((row) => row.toReversed()).toReversed())
    .map((row) => row.toReversed())
    .toReversed();
  return scores.map((row, index) => {
    const joint = row.map((score, at) =>
      score === -Infinity ? -Infinity : forward[index]![at]! + backward[index]![at]! - score,
    );
    const whole = logSum(joint);
    return joint.map((one) => Math.exp(one - whole));
  });
}

/** Log-likelihood of all ways to cut up to each change that end in each candidate. */
function sweep(scores: readonly (readonly number[])[]): number[][] {
  const all: number[][] = [];
  for (const row of scores) {
    const before = all.at(-1);
    let reached = -Infinity;
    all.push(
      row.map((score, at) => {
        if (!before) return score;
        if (at > 0) reached = logSum([reached, before[at - 1]!]);
        return reached + score;
      }),
    );
  }
  return all;
}

function logSum(values: readonly number[]): number {
  const largest = Math.max(...values);
  if (largest === -Infinity) return -Infinity;
  return largest + Math.log(values.reduce((sum, value) => sum + Math.exp(value - largest), 0));
}
