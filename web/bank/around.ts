import type { Anchor } from '#core/anchor';
import type { Folio } from '#core/folio';
import type { Around } from '#contract/bank';

/** Characters on each side that tell what a passage is about. */
const REACH = 300;
const LONGEST = 5000;

/** The passage of an anchor with what stands around it; empty where it is about no words. */
export function aroundOf({ text }: Pick<Folio, 'text'>, anchor: Anchor): Around {
  if (anchor.type !== 'passage') return { before: '', passage: '', after: '' };
  const { start, end } = anchor;
  return {
    before: text.slice(Math.max(0, start - REACH), start),
    passage: text.slice(start, Math.min(end, start + LONGEST)),
    after: text.slice(end, end + REACH),
  };
}
