import type { Block, TextBlock } from './blocks.ts';
import { blockStarts, canonicalText } from './text.ts';

/** A rectangle in points (1/72 inch) from the upper left corner of its page or slide. */
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Words of a page at their place, e.g. one line of a column. */
export interface PlacedText extends Box {
  text: string;
  /** What separates it from the next in the canonical text: nothing, a space, or the end of a paragraph. */
  glue: '' | ' ' | '\n';
  /** Degrees clockwise around its upper left corner. */
  angle?: number | undefined;
}

export type Geometry = 'none' | 'rectangle' | 'rounded' | 'ellipse' | 'triangle' | 'diamond' | 'arrow' | 'line';

/** Something that stands on a slide. Colours are `#rrggbb`. */
export interface Shape extends Box {
  geometry: Geometry;
  /** Degrees clockwise around its middle. */
  rotation?: number | undefined;
  flipped?: { horizontal: boolean; vertical: boolean } | undefined;
  fill?: string | undefined;
  line?: { color: string; width: number } | undefined;
  picture?: number | undefined;
  /** Which shares of the picture are cut off: top, right, bottom, left. */
  crop?: [number, number, number, number] | undefined;
  alt?: string | undefined;
  /** Its letters become smaller until all of them fit in. */
  fit?: boolean | undefined;
  /** Where its text stands. */
  align?: 'top' | 'middle' | 'bottom' | undefined;
  /** Space between its edge and its text, in points: top, right, bottom, left. */
  inset?: [number, number, number, number] | undefined;
  blocks: Block[];
}

export interface SheetCell {
  text: string;
  /** The formula that its value was computed by, beginning with `=`. It is no part of the text. */
  formula?: string | undefined;
  /** How many columns and rows it covers, where that is more than one. */
  columns?: number | undefined;
  rows?: number | undefined;
}

interface NewLeafBase {
  label: string;
}

/** Flowing text. */
export interface TextLeaf extends NewLeafBase {
  kind: 'text';
  blocks: Block[];
}

/** A page that is drawn as it is; its size in points, its number in the file from 1. */
export interface PageLeaf extends NewLeafBase {
  kind: 'page';
  page: number;
  width: number;
  height: number;
  texts: PlacedText[];
}

/** A slide; its size in points. */
export interface SlideLeaf extends NewLeafBase {
  kind: 'slide';
  width: number;
  height: number;
  background?: string | undefined;
  shapes: Shape[];
  /** What the speaker wrote for themselves. */
  notes: TextBlock[];
}

/** A picture; its size in pixels as it stands upright. */
export interface PictureLeaf extends NewLeafBase {
  kind: 'picture';
  picture: number;
  width: number;
  height: number;
}

/** A recording. */
export interface SoundLeaf extends NewLeafBase {
  kind: 'sound';
  /** Seconds; null where the file does not say. */
  duration: number | null;
  video: boolean;
}

/** A table of values. All rows have as many cells; a merged cell stands first, the cells below it are empty. */
export interface SheetLeaf extends NewLeafBase {
  kind: 'sheet';
  rows: SheetCell[][];
}

/** What a student answered to one question. */
export interface AnswerLeaf extends NewLeafBase {
  kind: 'answer';
  question: string;
  prompt: string;
  blocks: TextBlock[];
}

/** One page, slide, picture, answer or sound, before it has its place in a folio. */
export type NewLeaf = TextLeaf | PageLeaf | SlideLeaf | PictureLeaf | SoundLeaf | SheetLeaf | AnswerLeaf;

/** A leaf at its place: `file` counts the files of the work, `start` and `end` are UTF-16 offsets into the canonical text. */
export type Leaf = NewLeaf & { file: number; start: number; end: number };
export type LeafOf<Kind extends Leaf['kind']> = Extract<Leaf, { kind: Kind }>;

/** The blocks of a leaf that have text, in the order in which they are read. */
export function leafBlocks(leaf: NewLeaf): Block[] {
  if (leaf.kind === 'text' || leaf.kind === 'answer') return leaf.blocks;
  if (leaf.kind === 'slide') return [...leaf.shapes.flatMap(({ blocks }) => blocks), ...leaf.notes];
  return [];
}

/** Where the entries of lists begin in the canonical text, as UTF-16 offsets. */
export const itemStarts = (leaves: readonly Leaf[]): Set<number> =>
  new Set(
    leaves.flatMap((leaf) =>
      [...blockStarts(leafBlocks(leaf), leaf.start)].flatMap(([block, start]) =>
        block.type === 'item' ? [start] : [],
      ),
    ),
  );

/** What a leaf adds to the canonical text. */
export function leafText(leaf: NewLeaf): string {
  switch (leaf.kind) {
    case 'page':
      return leaf.texts.map(({ text, glue }) => text + glue).join('');
    case 'sheet':
      return leaf.rows.map((row) => `${row.map(({ text }) => text).join('\t')}\n`).join('');
    default:
      return canonicalText(leafBlocks(leaf));
  }
}
