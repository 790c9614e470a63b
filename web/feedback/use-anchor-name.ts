import type { Anchor } from '#core/anchor';
import { anchorName } from '../wording/anchor-name.ts';
import { useFeedback } from './feedback-store.ts';

const NO_WORK = { leaves: [], files: [] };

/** Names what a remark is about, in the work that is open. */
export function useAnchorName(): (anchor: Anchor) => string {
  const store = useFeedback();
  return (anchor) => anchorName(store.work?.folio ?? NO_WORK, anchor);
}
