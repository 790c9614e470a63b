import { compareAnchors, type Anchor } from '#core/anchor';
import type { Folio } from '#core/folio';
import type { Kind, Remark } from '#contract/remarks';

/** Something that stands in the margin, level with what it is about. */
export interface MarginEntry {
  id: string;
  kind: Kind;
  anchor: Anchor;
}

/** Remarks as they stand in the margin, in reading order; of two on the same words, the one that was made first. */
export function marginEntries(
  folio: Pick<Folio, 'text' | 'leaves'>,
  remarks: readonly Pick<Remark, 'id' | 'kind' | 'anchor'>[],
): MarginEntry[] {
  const compare = compareAnchors(folio);
  return remarks.map(({ id, kind, anchor }) => ({ id, kind, anchor })).sort((a, b) => compare(a.anchor, b.anchor));
}
