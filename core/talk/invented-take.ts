import type { Span } from '../audio/edit.ts';
import type { TalkTake } from './split.ts';

/** How somebody talks through a work; pauses in seconds, from the shortest to the longest. */
export interface Manner {
  /** Between one passage and the next. */
  change: [number, number];
  /** Between sentences about one passage. */
  sentence: [number, number];
  /** A hesitation in the middle of a sentence, and how likely one is after each word. */
  hesitation: [number, number];
  hesitates: number;
}

/** All pauses from 0.2 to 2 s, as people have them. */
export const MANNERS = {
  calm: { change: [0.8, 2], sentence: [0.25, 0.9], hesitation: [0.2, 0.5], hesitates: 0.05 },
  usual: { change: [0.5, 2], sentence: [0.2, 1], hesitation: [0.2, 0.7], hesitates: 0.08 },
  hasty: { change: [0.3, 1.2], sentence: [0.2, 0.9], hesitation: [0.2, 0.8], hesitates: 0.08 },
} satisfies Record<string, Manner>;

export type InventedTake = Required<TalkTake> & {
  /** The pauses at which the speaker really went on. */
  changes: Span[];
};

/** A pause that is not longer than this is none, in seconds. */
const SHORTEST_PAUSE = 0.2;

/**
 * A take as somebody might speak it: parts of some sentences, each passage chosen from 1.5 s before to 1 s after its first word.
 * @param random numbers from 0 to 1
 */
export function inventedTake(random: () => number, manner: Manner, parts = 8): InventedTake {
  const between = ([from, to]: readonly [number, number]): number => from + random() * (to - from);
  const words: { word: string; start: number; end: number }[] = [];
  const [pauses, changes]: [Span[], Span[]] = [[], []];
  const [selections, keys]: [{ at: number }[], { at: number }[]] = [[], []];
  let at = 0.5;

  const pause = (seconds: number): Span => {
    const span = { start: at, end: at + seconds };
    if (seconds > SHORTEST_PAUSE) pauses.push(span);
    at += seconds;
    return span;
  };
  const sentence = (): void => {
    const count = Math.round(between([4, 14]));
    for (let index = 1; index <= count; index++) {
      const end = at + between([0.15, 0.45]);
      words.push({ word: index === count ? 'word.' : 'word', start: at, end });
      at = end;
      if (index < count) pause(random() < manner.hesitates ? between(manner.hesitation) : between([0, 0.08]));
    }
  };

  for (let part = 0; part < parts; part++) {
    if (part > 0) changes.push(pause(between(manner.change)));
    const begun = at;
    selections.push({ at: Math.max(0, begun + between([-1.5, 1])) });
    const sentences = Math.round(between([1, 4]));
    for (let index = 1; index <= sentences; index++) {
      sentence();
      if (index < sentences) pause(between(manner.sentence));
    }
    if (random() < 0.5) keys.push({ at: between([Math.min(begun + 1, at), at]) });
  }
  const chosen = selections.toSorted((a, b) => a.at - b.at);
  return { duration: at + 0.5, pauses, selections: chosen, words, keys, changes };
}

/** Repeatable numbers from 0 to 1: the linear congruential generator of Numerical Recipes (Press et al., 1992, section 7.1). */
export function repeatable(seed: number): () => number {
  let state = seed >>> 0;
  return () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
}
