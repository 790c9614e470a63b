import { getStroke } from 'perfect-freehand';
import { boxAround, type DrawnStroke, type InkPoint } from './stroke.ts';

/** How a stroke is drawn: an SVG path, filled or drawn as a line of its width. */
export interface InkPath {
  d: string;
  filled: boolean;
}

/** In widths of the line. */
const ARROW_HEAD = 4.5;
const HEAD_ANGLE = Math.PI / 7;

/** The SVG path (SVG 2, section 9) of a stroke; empty for a label, which is text. */
export function pathOf(stroke: DrawnStroke): InkPath {
  const { tool, points, width } = stroke;
  if (tool === 'pen' || tool === 'highlighter') return { d: roundedOutline(stroke), filled: true };
  const [from, to] = [points[0]!, points.at(-1)!];
  switch (tool) {
    case 'line':
      return { d: polyline([from, to]), filled: false };
    case 'arrow':
      return { d: `${polyline([from, to])} ${polyline(headOf(from, to, width))}`, filled: false };
    case 'rectangle':
      return { d: isBent(points) ? polyline(points) : rectangleBetween(from, to), filled: false };
    case 'ellipse':
      return { d: ellipseBetween(from, to), filled: false };
    case 'label':
      return { d: '', filled: false };
  }
}

/** A shape of two points has its corners there. */
const isBent = (points: readonly InkPoint[]): boolean => points.length > 2;

const n = (value: number): string => String(Math.round(value * 100) / 100);
const polyline = (points: readonly { x: number; y: number }[]): string =>
  points.map(({ x, y }, index) => `${index === 0 ? 'M' : 'L'}${n(x)} ${n(y)}`).join('');

function rectangleBetween(from: InkPoint, to: InkPoint): string {
  const { left, top, right, bottom } = boxAround([from, to]);
  return `M${n(left)} ${n(top)}H${n(right)}V${n(bottom)}H${n(left)}Z`;
}

function ellipseBetween(from: InkPoint, to: InkPoint): string {
  const { left, top, right, bottom } = boxAround([from, to]);
  const [rx, ry] = [(right - left) / 2, (bottom - top) / 2];
  const arc = `A${n(rx)} ${n(ry)} 0 1 0 `;
  return `M${n(left)} ${n(top + ry)}${arc}${n(right)} ${n(top + ry)}${arc}${n(left)} ${n(top + ry)}Z`;
}

/** The two barbs of an arrow and its tip between them. */
export function headOf(from: InkPoint, to: InkPoint, width: number): { x: number; y: number }[] {
  const angle = Math.atan2(to.y - from.y, to.x - from.x);
  const length = ARROW_HEAD * width;
  const side = (by: number): { x: number; y: number } => ({
    x: to.x - length * Math.cos(angle + by),
    y: to.y - length * Math.sin(angle + by),
  });
  return [side(HEAD_ANGLE), to, side(-HEAD_ANGLE)];
}

/**
 * The outline of what a nib leaves, as points around it: wider where it was pressed; where a device tells no pressure, where it
 * was slow.
 */
export function outlineOf({ tool, points, width }: DrawnStroke): { x: number; y: number }[] {
  const told = points.some(({ pressure }) => pressure !== points[0]!.pressure);
  return getStroke(
    points.map(({ x, y, pressure }) => [x, y, pressure]),
    {
      size: width,
      thinning: tool === 'highlighter' ? 0 : 0.55,
      smoothing: 0.5,
      streamline: 0.3,
      simulatePressure: !told,
      last: true,
    },
  ).map(([x, y]) => ({ x: x!, y: y! }));
}

/** Rounded off: a curve through the middles between the points. */
function roundedOutline(stroke: DrawnStroke): string {
  const [first, ...rest] = outlineOf(stroke);
  if (!first) return '';
  let d = `M${n(first.x)} ${n(first.y)}Q`;
  rest.forEach(({ x, y }, index) => {
    const next = rest[index + 1] ?? first;
    d += `${n(x)} ${n(y)} ${n((x + next.x) / 2)} ${n((y + next.y) / 2)} `;
  });
  return `${d}Z`;
}
