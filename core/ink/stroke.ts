/** What one draws with. The last five are made from their first and last point alone. */
export const INK_TOOLS = ['pen', 'highlighter', 'line', 'arrow', 'rectangle', 'ellipse', 'label'] as const;
export type InkTool = (typeof INK_TOOLS)[number];

/** What is made from two points: where it begins, and where it ends. */
export const isShape = (tool: InkTool): boolean => tool !== 'pen' && tool !== 'highlighter';

export interface InkPoint {
  x: number;
  y: number;
  /** From 0 to 1; a half where the device does not tell. */
  pressure: number;
  /** Seconds since the stroke began. */
  at: number;
}

/** A stroke as it lies on screen, in pixels. */
export interface DrawnStroke {
  tool: InkTool;
  /** A kind of the margin key, or a colour of its own. */
  colour: string;
  width: number;
  points: readonly InkPoint[];
  /** What a label says. */
  text?: string | undefined;
}

/** How a stroke hangs on words; offsets in UTF-16 units from the beginning of the passage that its remark is about. */
export type Hold =
  /** It runs along a line under, through or over words: `x` counts letters. */
  | { type: 'along' }
  /** It runs around words, further out than they by so many units to the left, top, right and bottom. */
  | { type: 'around'; start: number; end: number; pad: [number, number, number, number]; lines: boolean }
  /** It stands beside a word, and goes wherever that goes. */
  | { type: 'free'; start: number }
  /** It stands on the free paper beside the text, level with a word: `x` counts from the right edge of all lines. */
  | { type: 'beside'; start: number };

/**
 * A stroke as it is kept. On pages, slides and pictures a unit is a ten-thousandth of the leaf's width; on flowing text it is a
 * hundredth of the height of a line.
 */
export interface Stroke extends Omit<DrawnStroke, 'points'> {
  /** See {@link packPoints}. */
  points: string;
  hold?: Hold | undefined;
}

export interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** The smallest box around some points; at least one. */
export function boxAround(points: readonly { x: number; y: number }[]): Box {
  const box = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity };
  for (const { x, y } of points) {
    box.left = Math.min(box.left, x);
    box.top = Math.min(box.top, y);
    box.right = Math.max(box.right, x);
    box.bottom = Math.max(box.bottom, y);
  }
  return box;
}
