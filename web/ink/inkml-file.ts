import {
  boxAround,
  INK_TOOLS,
  pointsOfTrace,
  SURFACE_UNITS,
  strokeOfRead,
  type InkTool,
  type ReadStroke,
} from '#core/ink';
import { Quote } from '#contract/anchor';
import { Hold, Stroke } from '#contract/ink';

/** Seconds in the units that channels of time are measured in. */
const SECONDS: Record<string, number> = { s: 1, ms: 0.001 };
/** Of the width of a leaf: where strokes of another program are put. */
const [FIRST, LAST] = [0.1, 0.9];

/** A file that has no strokes to take. Its message is for people. */
export class NoInkml extends Error {}

interface Channel {
  name: string;
  unit: number;
  most?: number;
}

export interface InkmlStroke {
  stroke: Stroke;
  /** The words that it hangs on. */
  quote?: Quote;
}

/**
 * The strokes of an InkML file, as they are kept. Those that were saved here lie where they lay; those of another program are
 * made to fit on a page.
 * @throws NoInkml
 */
export function readInkml(xml: string): InkmlStroke[] {
  const document = new DOMParser().parseFromString(xml, 'application/xml');
  if (document.querySelector('parsererror') || document.documentElement.localName !== 'ink')
    throw new NoInkml('This is no InkML file. Save the strokes as InkML in the other program, and try again.');
  const traces = named(document, 'trace');
  try {
    const read = traces.map((trace) => strokeOf(document, trace));
    if (read.length === 0) throw new NoInkml('There are no strokes in this file.');
    const own = traces.every((trace) => detail(trace, 'tool') !== undefined);
    return (own ? read : fitted(read)).map((stroke, index) => {
      const quote = stroke.hold && detail(traces[index]!.parentElement!, 'quote');
      return { stroke: Stroke.parse(strokeOfRead(stroke)), ...(quote && { quote: Quote.parse(JSON.parse(quote)) }) };
    });
  } catch (error) {
    if (error instanceof NoInkml) throw error;
    throw new NoInkml('The strokes in this file cannot be read: it is damaged, or not written as InkML wants it.');
  }
}

const elements = (root: Document | Element): Element[] => [...root.getElementsByTagName('*')];

/** Those of a name, in whatever way the file writes namespaces. */
const named = (root: Document | Element, name: string): Element[] =>
  elements(root).filter((element) => element.localName === name);

function strokeOf(document: Document, trace: Element): ReadStroke {
  const hold = detail(trace, 'hold');
  const tool = detail(trace, 'tool');
  const brush = byReference(document, inherited(trace, 'brushRef'));
  const width = brush && property(brush, 'width');
  return {
    tool: INK_TOOLS.find((one): one is InkTool => one === tool) ?? 'pen',
    colour: detail(trace, 'colour'),
    ...(width !== undefined && Number(width) > 0 && { width: Number(width) }),
    points: pointsOfTrace(trace.textContent, channelsOf(document, trace)),
    ...(hold !== undefined && { hold: Hold.parse(JSON.parse(hold)) }),
    ...(tool === 'label' && { text: detail(trace, 'text') ?? '' }),
  };
}

/** Those of the trace's context, or of the only one there is; X and Y where none says otherwise (section 3.1.1). */
function channelsOf(document: Document, trace: Element): Channel[] {
  const context = byReference(document, inherited(trace, 'contextRef')) ?? document;
  const format = named(context, 'traceFormat')[0];
  const channels = (format ? named(format, 'channel') : []).map((channel): Channel => {
    const most = Number(channel.getAttribute('max'));
    return {
      name: channel.getAttribute('name') ?? '',
      unit: SECONDS[channel.getAttribute('units') ?? 'ms'] ?? 0.001,
      ...(most > 0 && { most }),
    };
  });
  return channels.length > 0
    ? channels
    : [
        { name: 'X', unit: 1 },
        { name: 'Y', unit: 1 },
      ];
}

/** All of them together, as large as they fit between the edges of a leaf. */
function fitted(strokes: readonly ReadStroke[]): ReadStroke[] {
  const { left, top, right, bottom } = boxAround(strokes.flatMap(({ points }) => points));
  const scale = ((LAST - FIRST) * SURFACE_UNITS) / Math.max(right - left, bottom - top, 1e-9);
  return strokes.map(({ points, width: _width, hold: _hold, ...look }) => ({
    ...look,
    points: points.map((point) => ({
      ...point,
      x: (point.x - left) * scale + FIRST * SURFACE_UNITS,
      y: (point.y - top) * scale + FIRST * SURFACE_UNITS,
    })),
  }));
}

function inherited(element: Element, name: string): string | null {
  return element.getAttribute(name) ?? element.parentElement?.getAttribute(name) ?? null;
}

const byReference = (document: Document, reference: string | null): Element | undefined =>
  reference?.startsWith('#')
    ? elements(document).find((one) => (one.getAttribute('xml:id') ?? one.getAttribute('id')) === reference.slice(1))
    : undefined;

const property = (brush: Element, name: string): string | undefined =>
  named(brush, 'brushProperty')
    .find((one) => one.getAttribute('name') === name)
    ?.getAttribute('value') ?? undefined;

/** What an annotation beside the trace says. */
const detail = (trace: Element, type: string): string | undefined =>
  [...(trace.parentElement?.children ?? [])]
    .find((one) => one.localName === 'annotation' && one.getAttribute('type') === type)
    ?.textContent?.trim();
