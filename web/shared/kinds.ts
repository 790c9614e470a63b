import type { Kind } from '#contract/remarks';

/** The margin key: what each kind of remark is called and how it is drawn, beside its colour in styles.css. */
export interface KindInfo {
  kind: Kind;
  name: string;
  glyph: string;
}

export const KINDS: readonly KindInfo[] = [
  { kind: 'strength', name: 'Strength', glyph: '▲' },
  { kind: 'question', name: 'Question', glyph: '?' },
  { kind: 'repair', name: 'Repair', glyph: '✕' },
  { kind: 'next', name: 'Next step', glyph: '→' },
];

export const kindInfo = (kind: Kind): KindInfo => KINDS.find((info) => info.kind === kind)!;
