import type { Anchor } from '../anchor/index.ts';
import type { Leaf } from '../folio/index.ts';

/**
 * Remarks with the numbers they have on paper, from 1: first what is about the whole work, then down the work from leaf to leaf;
 * where two are about the same place, the older one first.
 */
export function numbered<Remark extends { anchor: Anchor; madeAt: string }>(
  remarks: readonly Remark[],
  leaves: readonly Leaf[],
): { remark: Remark; number: number }[] {
  return remarks
    .map((remark) => ({ remark, place: placeOf(remark.anchor, leaves) }))
    .sort(
      (a, b) =>
        a.place.leaf - b.place.leaf ||
        a.place.along - b.place.along ||
        Date.parse(a.remark.madeAt) - Date.parse(b.remark.madeAt),
    )
    .map(({ remark }, index) => ({ remark, number: index + 1 }));
}

function placeOf(anchor: Anchor, leaves: readonly Leaf[]): { leaf: number; along: number } {
  switch (anchor.type) {
    case 'whole':
      return { leaf: -1, along: 0 };
    case 'passage': {
      const leaf = leaves.findIndex(({ start, end }) => anchor.start >= start && anchor.start < end);
      const { start, end } = leaves[leaf] ?? { start: 0, end: 1 };
      return { leaf, along: (anchor.start - start) / Math.max(1, end - start) };
    }
    case 'region':
      return { leaf: anchor.leaf, along: anchor.y };
    case 'span':
      return { leaf: anchor.leaf, along: anchor.start };
    case 'cells':
      return { leaf: anchor.leaf, along: anchor.top };
    case 'answer':
      return {
        leaf: leaves.findIndex((leaf) => leaf.kind === 'answer' && leaf.question === anchor.question),
        along: 0,
      };
  }
}
