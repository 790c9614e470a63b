import { canonicalText, leafAt, type Folio, type Leaf } from '#core/folio';
import type { Anchor, CellsAnchor, PassageAnchor, RegionAnchor, SpanAnchor } from './anchor.ts';

type Anchored = Pick<Folio, 'text' | 'leaves'>;

/** Whether an anchor fits a folio: its words, box, stretch, cells or question are there. */
export function anchorHolds(folio: Anchored, anchor: Anchor): boolean {
  switch (anchor.type) {
    case 'whole':
      return true;
    case 'passage':
      return passageHolds(folio.text, anchor);
    case 'answer':
      return folio.leaves.some((leaf) => leaf.kind === 'answer' && leaf.question === anchor.question);
    default: {
      const leaf = folio.leaves[anchor.leaf];
      return leaf !== undefined && HOLDS[anchor.type](leaf, anchor as never);
    }
  }
}

function passageHolds(text: string, { start, end, quote }: PassageAnchor): boolean {
  return (
    quote.exact !== '' &&
    text.slice(start, end) === quote.exact &&
    text.slice(0, start).endsWith(quote.prefix) &&
    text.slice(end).startsWith(quote.suffix)
  );
}

/** Fractions of a leaf that were rounded on the way may end this much outside. */
const ROUNDING = 1e-6;

const HOLDS = {
  region: (leaf: Leaf, { x, y, width, height }: RegionAnchor): boolean =>
    (leaf.kind === 'page' || leaf.kind === 'slide' || leaf.kind === 'picture') &&
    [x, y].every((value) => value >= 0) &&
    [width, height].every((value) => value > 0) &&
    [x + width, y + height].every((value) => value <= 1 + ROUNDING),
  span: (leaf: Leaf, { start, end }: SpanAnchor): boolean =>
    leaf.kind === 'sound' && start >= 0 && end > start && (leaf.duration === null || end <= leaf.duration + 0.1),
  cells: (leaf: Leaf, { top, left, bottom, right }: CellsAnchor): boolean =>
    leaf.kind === 'sheet' &&
    [top, left, bottom, right].every((value) => Number.isInteger(value) && value >= 0) &&
    top <= bottom &&
    left <= right &&
    bottom < leaf.rows.length &&
    right < (leaf.rows[0]?.length ?? 0),
};

/** Reading order: the whole work first, then leaf by leaf from top to bottom, the longer passage first where two start alike. */
export function compareAnchors(folio: Anchored): (a: Anchor, b: Anchor) => number {
  const passage = (anchor: Anchor) => (anchor.type === 'passage' ? anchor : { start: 0, end: 0 });
  return (a, b) => {
    const [one, other] = [placeInFolio(folio, a), placeInFolio(folio, b)];
    return (
      one.leaf - other.leaf ||
      one.fraction - other.fraction ||
      passage(a).start - passage(b).start ||
      passage(b).end - passage(a).end
    );
  };
}

/** Where an anchor begins: the index of its leaf (−1 for the whole work) and how far down on it, from 0 to 1. */
export function placeInFolio({ leaves }: Anchored, anchor: Anchor): { leaf: number; fraction: number } {
  switch (anchor.type) {
    case 'whole':
      return { leaf: -1, fraction: 0 };
    case 'answer':
      return {
        leaf: leaves.findIndex((leaf) => leaf.kind === 'answer' && leaf.question === anchor.question),
        fraction: 0,
      };
    case 'region':
      return { leaf: anchor.leaf, fraction: anchor.y };
    case 'span':
      return { leaf: anchor.leaf, fraction: anchor.start / (1 + anchor.start) };
    case 'cells':
      return { leaf: anchor.leaf, fraction: anchor.top / (1 + anchor.top) };
    case 'passage': {
      const index = leafAt(leaves, anchor.start);
      const leaf = leaves[index];
      return { leaf: index, fraction: leaf ? fractionOf(leaf, anchor.start - leaf.start) : 0 };
    }
  }
}

function fractionOf(leaf: Leaf, offset: number): number {
  if (leaf.kind === 'page')
    return (around(leaf.texts, ({ text, glue }) => text.length + glue.length, offset)?.y ?? 0) / leaf.height;
  if (leaf.kind === 'slide')
    return (around(leaf.shapes, ({ blocks }) => canonicalText(blocks).length, offset)?.y ?? leaf.height) / leaf.height;
  return offset / Math.max(1, leaf.end - leaf.start);
}

function around<T>(parts: readonly T[], length: (part: T) => number, offset: number): T | undefined {
  let at = 0;
  return parts.find((part) => (at += length(part)) > offset);
}
