import type { Look, Mark, MathNode, Run } from './blocks.ts';

/** A stretch of the canonical text that belongs to somebody, e.g. a remark's passage. Offsets in UTF-16 units. */
export interface Stretch {
  id: string;
  start: number;
  end: number;
}

/** The smallest unit that is drawn: characters of one look, covered by the same stretches. */
export interface Piece {
  text: string;
  /** UTF-16 offset of its first character in the canonical text. */
  start: number;
  marks: Mark[];
  link?: string | undefined;
  note?: string | undefined;
  math?: MathNode | undefined;
  look?: Look | undefined;
  /** Ids of the stretches that cover it, in the order given. */
  covering: string[];
}

/**
 * Cuts the runs of a block wherever a stretch begins or ends, so that each piece is covered evenly.
 * @param start UTF-16 offset of the block in the canonical text
 */
export function pieces(runs: readonly Run[], start: number, stretches: readonly Stretch[]): Piece[] {
  let at = start;
  return runs.flatMap((run) => {
    const from = at;
    at += run.text.length;
    return cutRun(run, from, stretches);
  });
}

function cutRun(run: Run, from: number, stretches: readonly Stretch[]): Piece[] {
  if (run.note !== undefined) return [{ text: '', start: from, marks: run.marks, note: run.note, covering: [] }];
  const to = from + run.text.length;
  const touching = stretches.filter((stretch) => stretch.start < to && stretch.end > from);
  // An equation is drawn as one thing.
  const inside = run.math
    ? []
    : touching.flatMap(({ start, end }) => [start, end]).filter((cut) => cut > from && cut < to);
  const cuts = [...new Set([from, ...inside, to])].sort((a, b) => a - b);
  return cuts.slice(0, -1).map((start, index) => {
    const end = cuts[index + 1]!;
    return {
      text: run.text.slice(start - from, end - from),
      start,
      marks: run.marks,
      link: run.link,
      math: run.math,
      look: run.look,
      covering: touching.filter((stretch) => stretch.start < end && stretch.end > start).map(({ id }) => id),
    };
  });
}
