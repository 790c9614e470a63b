import { compareAnchors, type Anchor } from '#core/anchor';
import type { Folio } from '#core/folio';
import type { Remark } from '#contract/remarks';

/** Something that stands in the margin, level with what it is about. */
export interface MarginEntry extends Partial<Pick<Remark, 'stamp' | 'reaction' | 'suggestion' | 'ink'>> {
  id: string;
  kind: string;
  anchor: Anchor;
}

/** Remarks as they stand in the margin, in reading order; of two on the same words, the one that was made first. */
export function marginEntries(folio: Pick<Folio, 'text' | 'leaves'>, entries: readonly MarginEntry[]): MarginEntry[] {
  const compare = compareAnchors(folio);
  return entries
    .map(({ id, kind, anchor, stamp = null, reaction = null, suggestion = null, ink = null }) => ({
      id,
      kind,
      anchor,
      stamp,
      reaction,
      suggestion,
      ink,
    }))
    .sort((a, b) => compare(a.anchor, b.anchor));
}
