import type { Quote } from '../anchor/anchor.ts';
import { packPoints, unpackPoints } from './pack.ts';
import type { Hold, InkPoint, InkTool, Stroke } from './stroke.ts';

/*
 * Ink Markup Language (InkML), W3C Recommendation of 20 September 2011, https://www.w3.org/TR/InkML/. What it has no word for
 * (that strokes hang on words, or are shapes) stands in annotations, which other programs pass over.
 */

/** What was drawn together. */
export interface InkGroup {
  /** What it is about, for people. */
  label: string;
  /** The words that its strokes hang on, so that they are found again in the same text. */
  quote?: Quote | undefined;
  strokes: readonly Stroke[];
}

const MILLISECONDS = 1000;

/** Strokes as an InkML document; a unit is the one they are kept in. @param hexOf a colour as `#RRGGBB` */
export function writeInkml(groups: readonly InkGroup[], hexOf: (colour: string) => string): string {
  const brushes = new Map<string, string>();
  const brushOf = ({ colour, width, tool }: Stroke): string => {
    const key = [colour, width, tool].join(' ');
    if (!brushes.has(key)) brushes.set(key, `b${brushes.size + 1}`);
    return brushes.get(key)!;
  };
  const traces = groups.map(
    ({ label, quote, strokes }) =>
      `  <traceGroup>\n    <annotation type="about">${escaped(label)}</annotation>\n${quoted(quote)}${strokes
        .map(
          (stroke) =>
            `    <traceGroup brushRef="#${brushOf(stroke)}">\n${details(stroke)}${trace(stroke)}    </traceGroup>\n`,
        )
        .join('')}  </traceGroup>\n`,
  );
  const definitions = [...brushes].map(([key, id]) => {
    const [colour, width, tool] = key.split(' ') as [string, string, InkTool];
    const pale = tool === 'highlighter' ? `<brushProperty name="transparency" value="0.68"/>` : '';
    return `    <brush xml:id="${id}"><brushProperty name="color" value="${hexOf(colour)}"/><brushProperty name="width" value="${width}"/>${pale}</brush>\n`;
  });
  return `<?xml version="1.0" encoding="UTF-8"?>
<ink xmlns="http://www.w3.org/2003/InkML">
  <definitions>
    <context xml:id="here">
      <traceFormat>
        <channel name="X" type="decimal"/><channel name="Y" type="decimal"/>
        <channel name="F" type="decimal" min="0" max="1"/><channel name="T" type="integer" units="ms"/>
      </traceFormat>
    </context>
${definitions.join('')}  </definitions>
${traces.join('')}</ink>
`;
}

const quoted = (quote: Quote | undefined): string =>
  quote ? `    <annotation type="quote">${escaped(JSON.stringify(quote))}</annotation>\n` : '';

const details = ({ tool, colour, text, hold }: Stroke): string =>
  Object.entries({ tool, colour, text, hold: hold && JSON.stringify(hold) })
    .flatMap(([type, value]) =>
      value === undefined ? [] : [`      <annotation type="${type}">${escaped(value)}</annotation>\n`],
    )
    .join('');

const trace = ({ points }: Stroke): string =>
  `      <trace contextRef="#here">${unpackPoints(points)
    .map(({ x, y, pressure, at }) => `${x} ${y} ${round(pressure)} ${Math.round(at * MILLISECONDS)}`)
    .join(', ')}</trace>\n`;

const round = (value: number): number => Math.round(value * 1000) / 1000;
const ENTITIES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const escaped = (text: string): string => text.replace(/[&<>"]/g, (character) => ENTITIES[character]!);

/**
 * The values of each point of a trace (section 3.2.1): as they are (`!` or nothing), as differences (`'`) or as differences of
 * differences (`"`); a prefix holds until the next, and `*` says the value before once more.
 *
 * @param count of its regular channels; what else a point has is left out
 * @throws RangeError where it is no trace
 */
export function readTrace(trace: string, count: number): number[][] {
  const orders = new Array<number>(count).fill(0);
  const values = new Array<number>(count).fill(0);
  const velocities = new Array<number>(count).fill(0);
  const points: number[][] = [];
  for (const point of trace.trim().split(',')) {
    if (point.trim() === '') continue;
    const tokens = [...point.matchAll(TOKEN)];
    if (
      tokens
        .map(([whole]) => whole)
        .join('')
        .replace(/\s/g, '') !== point.replace(/\s/g, '')
    )
      throw new RangeError(`“${point.trim().slice(0, 40)}” is no point of a trace`);
    if (tokens.length < count) throw new RangeError('A point of a trace has too few values');
    for (let channel = 0; channel < count; channel++) {
      const [, prefix, value] = tokens[channel]!;
      if (prefix) orders[channel] = ORDERS[prefix]!;
      const number = value === '*' ? undefined : Number(value);
      if (orders[channel] === 0) {
        const before = values[channel]!;
        values[channel] = number ?? before;
        velocities[channel] = points.length > 0 ? values[channel]! - before : 0;
        continue;
      }
      if (number !== undefined) velocities[channel] = orders[channel] === 1 ? number : velocities[channel]! + number;
      values[channel] = values[channel]! + velocities[channel]!;
    }
    points.push([...values]);
  }
  if (points.length === 0) throw new RangeError('A trace has no points');
  return points;
}

const ORDERS: Record<string, number> = { '!': 0, "'": 1, '"': 2 };
const TOKEN = /(?:([!'"])\s*)?(-?(?:\d+(?:\.\d*)?|\.\d+)(?:[eE][-+]?\d+)?|\*)/g;

/** A stroke as some program wrote it. */
export interface ReadStroke {
  tool: InkTool;
  colour?: string | undefined;
  /** In the unit of its points. */
  width?: number | undefined;
  points: InkPoint[];
  text?: string | undefined;
  hold?: Hold | undefined;
}

/**
 * Points of a trace by the names of its channels; those that are missing are as from a mouse.
 * @throws RangeError where it has no X and Y
 */
export function pointsOfTrace(
  trace: string,
  channels: readonly { name: string; unit: number; most?: number }[],
): InkPoint[] {
  const column = (name: string): number => channels.findIndex((channel) => channel.name === name);
  const [x, y, force, time] = ['X', 'Y', 'F', 'T'].map(column) as [number, number, number, number];
  if (x < 0 || y < 0) throw new RangeError('A trace has no X and Y');
  const rows = readTrace(trace, channels.length);
  const begun = time < 0 ? 0 : rows[0]![time]!;
  return rows.map((row, index) => ({
    ...{ x: row[x]!, y: row[y]! },
    pressure: force < 0 ? 0.5 : Math.min(1, Math.max(0, row[force]! / (channels[force]!.most ?? 1))),
    at: time < 0 ? index / 60 : Math.max(0, (row[time]! - begun) * channels[time]!.unit),
  }));
}

/** As it is kept, in the unit of its points. */
export const strokeOfRead = ({ points, width = 20, colour = 'ink', ...look }: ReadStroke): Stroke => ({
  ...look,
  colour,
  width: Math.max(1, Math.round(width)),
  points: packPoints(points),
});
