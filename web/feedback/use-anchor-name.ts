import type { Anchor } from '#core/anchor';
import type { Remark } from '#contract/remarks';
import { anchorName } from '../wording/anchor-name.ts';
import { useFeedback } from './feedback-store.ts';

const NO_WORK = { leaves: [], files: [] };

/** Names what a remark is about, in the work that is open. */
export function useAnchorName(): (anchor: Anchor) => string {
  const store = useFeedback();
  return (anchor) => anchorName(store.work?.folio ?? NO_WORK, anchor);
}

/** Names a remark by what it says, or by what it is about. */
export function useRemarkName(): (remark: Remark) => string {
  const nameOf = useAnchorName();
  return ({ anchor, recording, text, reaction }) =>
    recording?.transcript?.text || text || reaction || `On ${nameOf(anchor)}`;
}
