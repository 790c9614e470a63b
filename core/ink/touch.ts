import { boxAround, type DrawnStroke } from './stroke.ts';

interface Place {
  x: number;
  y: number;
}

/** Whether an eraser of some radius at a place touches a stroke; all in pixels. */
export function touches(stroke: DrawnStroke, at: Place, radius: number): boolean {
  const trace = traceOf(stroke);
  const reach = radius + stroke.width / 2;
  if (trace.length === 1) return Math.hypot(trace[0]!.x - at.x, trace[0]!.y - at.y) <= reach;
  return trace.some((point, index) => index > 0 && distanceToSegment(at, trace[index - 1]!, point) <= reach);
}

/** Whether most of a stroke lies inside of a loop that was drawn around it. */
export function isInside(stroke: DrawnStroke, loop: readonly Place[]): boolean {
  const trace = traceOf(stroke);
  return trace.filter((point) => contains(loop, point)).length > trace.length / 2;
}

/** Points along what is seen of a stroke. */
function traceOf({ tool, points, width, text = '' }: DrawnStroke): readonly Place[] {
  if (tool === 'pen' || tool === 'highlighter' || tool === 'line' || tool === 'arrow') return points;
  const { left, top, right, bottom } = tool === 'label' ? labelBox(points[0]!, width, text) : boxAround(points);
  return [
    { x: left, y: top },
    { x: right, y: top },
    { x: right, y: bottom },
    { x: left, y: bottom },
    { x: left, y: top },
  ];
}

/** Letters of a label, in widths of its line: how high they are, and about how wide. */
export const LABEL_HEIGHT = 8;
const LETTER_SHARE = 0.55;

const labelBox = ({ x, y }: Place, width: number, text: string) => {
  const height = LABEL_HEIGHT * width;
  return { left: x, top: y - height, right: x + text.length * height * LETTER_SHARE, bottom: y };
};

function distanceToSegment(at: Place, from: Place, to: Place): number {
  const [x, y] = [to.x - from.x, to.y - from.y];
  const length = x * x + y * y;
  const share = length > 0 ? Math.min(1, Math.max(0, ((at.x - from.x) * x + (at.y - from.y) * y) / length)) : 0;
  return Math.hypot(at.x - from.x - share * x, at.y - from.y - share * y);
}

/** Even–odd rule: a line from the place to the far right crosses the loop an odd number of times. */
function contains(loop: readonly Place[], { x, y }: Place): boolean {
  let inside = false;
  loop.forEach((to, index) => {
    const from = loop.at(index - 1)!;
    if (from.y > y !== to.y > y && x < ((to.x - from.x) * (y - from.y)) / (to.y - from.y) + from.x) inside = !inside;
  });
  return inside;
}

/** How much broader a pen draws that is laid flat, as the side of a pencil does. */
const FLAT = 0.6;

/**
 * The pressure of a pen with its tilt: the flatter it is held, the broader it draws.
 * @param pressure from 0 to 1
 * @param altitude of the pen over the paper in radians, from 0 to π/2 upright (Pointer Events 3, `altitudeAngle`); undefined where the
 *   device does not tell
 */
export const penPressure = (pressure: number, altitude: number | undefined): number =>
  Math.min(1, pressure * (1 + FLAT * (1 - Math.min(1, Math.max(0, (altitude ?? UPRIGHT) / UPRIGHT)))));

const UPRIGHT = Math.PI / 2;
