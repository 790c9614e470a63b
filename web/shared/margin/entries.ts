import { compareAnchors } from '#core/anchor';
import type { Kind, Remark } from '#contract/remarks';
import type { Offsets } from '../folio/selection.ts';

/** Something that stands in the margin. */
export interface MarginEntry {
  id: string;
  kind: Kind;
  /** Where its passage lies in the canonical text; absent for the whole work. */
  passage: Offsets | undefined;
}

/** Remarks as they stand in the margin, in reading order. */
export const marginEntries = (remarks: readonly Pick<Remark, 'id' | 'kind' | 'anchor'>[]): MarginEntry[] =>
  [...remarks]
    .sort((a, b) => compareAnchors(a.anchor, b.anchor))
    .map(({ id, kind, anchor }) => ({
      id,
      kind,
      passage: anchor.type === 'passage' ? { start: anchor.start, end: anchor.end } : undefined,
    }));
