import { linesOfWords, offsetAt, placeOf, type Line, type WordBox } from './lines.ts';
import { packPoints, unpackPoints } from './pack.ts';
import { boxAround, type Box, type DrawnStroke, type Hold, type InkPoint, type Stroke } from './stroke.ts';
import { thinPoints } from './thin.ts';

/** Units in the height of a line. */
const UNITS = 100;
/** Units in a letter, for strokes that run along a line. */
export const LETTER_UNITS = 16;
/** Units in the breadth of a stroke that runs around words. */
const SHARE_UNITS = 1000;
/** In heights of a line: how tall a stroke along a line may be, and how far below the letters. */
const TALLEST_ALONG = 1.3;
const LOWEST_ALONG = 0.5;
const SHORTEST_ALONG = 0.6;
/** How near its beginning a stroke around words ends, as a share of its size. */
const NEARLY_CLOSED = 0.4;
/** How far from the longest line, in heights of a line, the free paper beside the text begins. */
const BESIDE = 1.5;

/** Words of the text that a stroke belongs to. */
export interface KeptOnWords {
  stroke: Stroke;
  /** UTF-16 offsets of the canonical text; what the stroke holds is counted from `start`. */
  start: number;
  end: number;
}

/**
 * Hangs a stroke on the words it was drawn about: along a line of them, around them, or beside one.
 * @param words of the leaf, in the order of the text
 * @returns undefined where there are no words
 */
export function keepOnWords(stroke: DrawnStroke, words: readonly WordBox[]): KeptOnWords | undefined {
  if (words.length === 0 || stroke.points.length === 0) return undefined;
  const lines = linesOfWords(words);
  return (
    keepBeside(stroke, lines) ?? keepAround(stroke, words, lines) ?? keepAlong(stroke, lines) ?? keepFree(stroke, lines)
  );
}

function keepAlong(stroke: DrawnStroke, lines: readonly Line[]): KeptOnWords | undefined {
  if (stroke.tool === 'arrow' || stroke.tool === 'label') return undefined;
  const box = boxAround(stroke.points);
  const line = nearestLine(lines, box);
  const { height } = line;
  const middle = (box.top + box.bottom) / 2;
  const near = middle > line.top - LOWEST_ALONG * height && middle < line.bottom + LOWEST_ALONG * height;
  const flat = box.bottom - box.top < TALLEST_ALONG * height && box.right - box.left > SHORTEST_ALONG * height;
  const touched = line.words.filter((word) => overlap(word, box) > 0.3 * (word.right - word.left));
  if (!near || !flat || touched.length === 0) return undefined;
  const [start, end] = [touched[0]!.start, touched.at(-1)!.end];
  const points = thinPoints(stroke.points).map((point) => ({
    ...point,
    x: (offsetAt(line, point.x) - start) * LETTER_UNITS,
    y: ((point.y - line.bottom) / height) * UNITS,
  }));
  return { stroke: kept(stroke, points, height, { type: 'along' }), start, end };
}

function keepAround(stroke: DrawnStroke, words: readonly WordBox[], lines: readonly Line[]): KeptOnWords | undefined {
  const box = boxAround(stroke.points);
  const inside = words.filter((word) => isWithin(box, (word.left + word.right) / 2, (word.top + word.bottom) / 2));
  if (inside.length === 0 || !goesAround(stroke, box)) return undefined;
  const [start, end] = [inside[0]!.start, inside.at(-1)!.end];
  const rows = linesOfWords(inside);
  const { height } = lines.find((line) => line.words.includes(inside[0]!))!;
  const whole = union(rows);
  const out = (by: number): number => Math.round((by / height) * UNITS);
  const pad: [number, number, number, number] = [
    ...([out(whole.left - box.left), out(whole.top - box.top)] as const),
    ...([out(box.right - whole.right), out(box.bottom - whole.bottom)] as const),
  ];
  const points = thinPoints(stroke.points).map((point) => ({
    ...point,
    x: share(point.x, box.left, box.right) * SHARE_UNITS,
    y: share(point.y, box.top, box.bottom) * SHARE_UNITS,
  }));
  const hold: Hold = { type: 'around', start: 0, end: end - start, pad, lines: rows.length === 1 };
  return { stroke: kept(stroke, points, height, hold), start, end };
}

function keepFree(stroke: DrawnStroke, lines: readonly Line[]): KeptOnWords {
  // An arrow belongs to what it points at, everything else to where it began.
  const from = stroke.tool === 'arrow' ? stroke.points.at(-1)! : stroke.points[0]!;
  const { line, word } = nearestWord(lines, from);
  const points = thinPoints(stroke.points).map((point) => ({
    ...point,
    x: ((point.x - word.left) / line.height) * UNITS,
    y: ((point.y - line.bottom) / line.height) * UNITS,
  }));
  return { stroke: kept(stroke, points, line.height, { type: 'free', start: 0 }), start: word.start, end: word.end };
}

const rightEdge = (lines: readonly Line[]): number => Math.max(...lines.map(({ right }) => right));

function keepBeside(stroke: DrawnStroke, lines: readonly Line[]): KeptOnWords | undefined {
  const box = boxAround(stroke.points);
  const line = nearestLine(lines, box);
  const edge = rightEdge(lines);
  if (box.left < edge + BESIDE * line.height) return undefined;
  const word = line.words.at(-1)!;
  const points = thinPoints(stroke.points).map((point) => ({
    ...point,
    x: ((point.x - edge) / line.height) * UNITS,
    y: ((point.y - line.bottom) / line.height) * UNITS,
  }));
  return { stroke: kept(stroke, points, line.height, { type: 'beside', start: 0 }), start: word.start, end: word.end };
}

const kept = (
  { points: _points, width, ...look }: DrawnStroke,
  points: InkPoint[],
  height: number,
  hold: Hold,
): Stroke => ({
  ...look,
  width: Math.max(1, Math.round((width / height) * UNITS)),
  points: packPoints(points),
  hold,
});

/**
 * A stroke where its words stand now, in as many parts as there are lines to draw it on.
 * @param start of the passage that its remark is about
 * @returns nothing where there are no words
 */
export function drawOnWords(stroke: Stroke, words: readonly WordBox[], start: number): DrawnStroke[] {
  return drawOnLines(stroke, linesOfWords(words), start);
}

/** The same for words that are known as lines already. */
export function drawOnLines(stroke: Stroke, lines: readonly Line[], start: number): DrawnStroke[] {
  const { hold, points: packed, width, ...look } = stroke;
  if (lines.length === 0 || !hold) return [];
  const points = unpackPoints(packed);
  const drawn = (parts: InkPoint[][], height: number): DrawnStroke[] =>
    parts.filter((part) => part.length > 0).map((part) => ({ ...look, width: (width * height) / UNITS, points: part }));
  if (hold.type === 'along') {
    const { height } = placeOf(lines, start).line;
    return drawn(alongLines(points, lines, start), height);
  }
  if (hold.type === 'around') {
    const words = lines.flatMap((line) => line.words);
    const held = words.filter((word) => word.end > start + hold.start && word.start < start + hold.end);
    if (held.length === 0) return [];
    const { height } = placeOf(lines, held[0]!.start).line;
    const rows = linesOfWords(held);
    const boxes = hold.lines ? rows : [union(rows)];
    return drawn(
      boxes.map((box) => aroundBox(points, box, hold.pad, height)),
      height,
    );
  }
  const { line, x: word } = placeOf(lines, start + hold.start);
  const x = hold.type === 'beside' ? rightEdge(lines) : word;
  const moved = points.map((point) => ({
    ...point,
    x: x + (point.x / UNITS) * line.height,
    y: line.bottom + (point.y / UNITS) * line.height,
  }));
  return drawn([moved], line.height);
}

/** Redrawn along the passage: where its words were broken into another line, the stroke ends there and goes on here. */
function alongLines(points: readonly InkPoint[], lines: readonly Line[], start: number): InkPoint[][] {
  const parts: InkPoint[][] = [];
  let before: { point: InkPoint; index: number } | undefined;
  const put = (point: InkPoint, index: number, x: number): void => {
    const { bottom, height } = lines[index]!;
    parts.at(-1)!.push({ ...point, x, y: bottom + (point.y / UNITS) * height });
  };
  for (const point of points) {
    const { line, x } = placeOf(lines, start + point.x / LETTER_UNITS);
    const index = lines.indexOf(line);
    if (!before) parts.push([]);
    else {
      const by = index > before.index ? 1 : -1;
      for (let at = before.index; at !== index; at += by) {
        const [from, to] = [lines[at]!, lines[at + by]!];
        const [out, into] = by > 0 ? [from.right, to.left] : [from.left, to.right];
        const edge = by > 0 ? from.words.at(-1)!.end : from.words[0]!.start;
        const crossing = crossed(before.point, point, (edge - start) * LETTER_UNITS);
        put(crossing, at, out);
        parts.push([]);
        put(crossing, at + by, into);
      }
    }
    put(point, index, x);
    before = { point, index };
  }
  return parts;
}

/** The point between two others that is at some place along the line. */
function crossed(from: InkPoint, to: InkPoint, x: number): InkPoint {
  const at = Math.min(1, Math.max(0, share(x, from.x, to.x)));
  const mixed = (key: 'y' | 'pressure' | 'at'): number => from[key] + at * (to[key] - from[key]);
  return { x, y: mixed('y'), pressure: mixed('pressure'), at: mixed('at') };
}

function aroundBox(points: readonly InkPoint[], box: Box, pad: readonly number[], height: number): InkPoint[] {
  const [left, top, right, bottom] = pad.map((units) => (units / UNITS) * height) as [number, number, number, number];
  const [width, tall] = [box.right - box.left + left + right, box.bottom - box.top + top + bottom];
  return points.map((point) => ({
    ...point,
    x: box.left - left + (point.x / SHARE_UNITS) * width,
    y: box.top - top + (point.y / SHARE_UNITS) * tall,
  }));
}

/** The same stroke of a remark whose passage begins so many UTF-16 units earlier. */
export function heldFrom(stroke: Stroke, by: number): Stroke {
  const { hold } = stroke;
  if (!hold || by === 0) return stroke;
  if (hold.type === 'along') {
    const points = unpackPoints(stroke.points).map((point) => ({ ...point, x: point.x + by * LETTER_UNITS }));
    return { ...stroke, points: packPoints(points) };
  }
  const start = hold.start + by;
  return { ...stroke, hold: hold.type === 'around' ? { ...hold, start, end: hold.end + by } : { ...hold, start } };
}

function goesAround({ tool, points }: DrawnStroke, { left, top, right, bottom }: Box): boolean {
  if (tool === 'rectangle' || tool === 'ellipse') return true;
  if (tool !== 'pen') return false;
  const [first, last] = [points[0]!, points.at(-1)!];
  const size = Math.max(right - left, bottom - top);
  return points.length > 3 && Math.hypot(first.x - last.x, first.y - last.y) < NEARLY_CLOSED * size;
}

function nearestLine(lines: readonly Line[], box: Box): Line {
  const middle = (box.top + box.bottom) / 2;
  const away = (line: Line): number =>
    Math.max(0, line.top - middle, middle - line.bottom - LOWEST_ALONG * line.height) +
    Math.max(0, line.left - box.right, box.left - line.right);
  return lines.reduce((best, line) => (away(line) < away(best) ? line : best));
}

function nearestWord(lines: readonly Line[], { x, y }: InkPoint): { line: Line; word: WordBox } {
  let best = { line: lines[0]!, word: lines[0]!.words[0]!, away: Infinity };
  for (const line of lines)
    for (const word of line.words) {
      const away = Math.hypot(Math.max(0, word.left - x, x - word.right), Math.max(0, word.top - y, y - word.bottom));
      if (away < best.away) best = { line, word, away };
    }
  return best;
}

const overlap = (a: Box, b: Box): number => Math.min(a.right, b.right) - Math.max(a.left, b.left);
const isWithin = (box: Box, x: number, y: number): boolean =>
  x >= box.left && x <= box.right && y >= box.top && y <= box.bottom;
const share = (value: number, from: number, to: number): number => (to === from ? 0.5 : (value - from) / (to - from));
const union = (boxes: readonly Box[]): Box =>
  boxAround(
    boxes.flatMap(({ left, top, right, bottom }) => [
      { x: left, y: top },
      { x: right, y: bottom },
    ]),
  );
