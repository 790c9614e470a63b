/** Colours that a kind can have. Each is legible on paper in the light and the dark look; see web/theme.ts. */
export const KEY_COLORS = ['moss', 'cobalt', 'vermilion', 'ochre', 'plum', 'teal', 'slate', 'rose', 'umber'] as const;
export type KeyColor = (typeof KEY_COLORS)[number];

/** Each of them on light paper, as `#RRGGBB`. */
export const KEY_INKS: Record<KeyColor, string> = {
  moss: '#2F7D4F',
  cobalt: '#2B5FD9',
  vermilion: '#C0402A',
  ochre: '#8F5F0E',
  plum: '#86407C',
  teal: '#156F70',
  slate: '#4E5B70',
  rose: '#B02C5F',
  umber: '#7B4D2B',
};

/** Signs that a kind can have, told apart by their shape alone. */
export const KEY_GLYPHS = ['▲', '?', '✕', '→', '●', '◆', '★', '✓', '!', '≈', '§', '¶', '+', '☼', '♪', '∞'] as const;
export type KeyGlyph = (typeof KEY_GLYPHS)[number];

/** Lines that a kind can draw under its passages. */
export const KEY_LINES = ['solid', 'dotted', 'wavy', 'double', 'dashed'] as const;
export type KeyLine = (typeof KEY_LINES)[number];

/** What one kind of remark is called and how it is drawn. */
export interface KeyEntry {
  kind: string;
  name: string;
  color: KeyColor;
  glyph: KeyGlyph;
  line: KeyLine;
}

/** The kinds of remarks of a course, in the order of the keys 1 to 9. */
export type MarginKey = readonly KeyEntry[];

export const MAX_KINDS = 9;

/** The key that every course begins with. */
export const DEFAULT_KEY: MarginKey = [
  { kind: 'strength', name: 'Strength', color: 'moss', glyph: '▲', line: 'solid' },
  { kind: 'question', name: 'Question', color: 'cobalt', glyph: '?', line: 'dotted' },
  { kind: 'repair', name: 'Repair', color: 'vermilion', glyph: '✕', line: 'wavy' },
  { kind: 'next', name: 'Next step', color: 'ochre', glyph: '→', line: 'double' },
];

/** What is wrong with a key, as a sentence; undefined where nothing is. Colour alone never tells two kinds apart. */
export function keyProblem(key: MarginKey): string | undefined {
  if (key.length === 0) return 'At least one kind is needed.';
  if (key.length > MAX_KINDS) return `There can be ${MAX_KINDS} kinds at the most, one for each key from 1 to 9.`;
  if (key.some(({ name }) => name.trim() === '')) return 'Every kind needs a name.';
  if (!distinct(key.map(({ kind }) => kind))) return 'Two kinds have the same identifier.';
  if (!distinct(key.map(({ name }) => name.trim().toLowerCase()))) return 'Two kinds have the same name.';
  if (!distinct(key.map(({ glyph }) => glyph)))
    return 'Two kinds have the same sign: they could be told apart by colour only.';
  return undefined;
}

const distinct = (values: readonly string[]): boolean => new Set(values).size === values.length;

/** The entry of a kind; one that is not in the key any more is drawn without colour. */
export const keyEntry = (key: MarginKey, kind: string): KeyEntry =>
  key.find((entry) => entry.kind === kind) ?? { kind, name: kind, color: 'slate', glyph: '●', line: 'solid' };
