import { passageAnchor, type Anchor } from '../anchor/anchor.ts';
import type { Folio } from '../folio/index.ts';
import { gather, regionOfStrokes, takeApart } from './gather.ts';
import type { Stroke } from './stroke.ts';
import { heldFrom, type KeptOnWords } from './words.ts';

/** A stroke with what it belongs to: words, or a page, slide or picture. */
export type PlacedStroke = { leaf: number } & ({ held: KeptOnWords } | { stroke: Stroke });

/** What was drawn about one place. */
export interface Drawing {
  ink: Stroke[];
  anchor: Anchor;
}

/** Strokes further apart than so many characters, or than this share of the leaf, are about something else. */
const FAR_IN_TEXT = 160;
const FAR_ON_LEAF = 0.15;

type Paper = Pick<Folio, 'text' | 'leaves'>;

/** The stroke itself. */
export const strokeOf = (placed: PlacedStroke): Stroke => ('held' in placed ? placed.held.stroke : placed.stroke);

/** One drawing of some strokes about one place; undefined where they have none. Where some hang on words, only these count. */
export function drawingOf(strokes: readonly PlacedStroke[], { text, leaves }: Paper): Drawing | undefined {
  const held = strokes.flatMap((one) => ('held' in one ? [one.held] : []));
  if (held.length > 0) {
    const { strokes: ink, start, end } = gather(held);
    const anchor = passageAnchor(text, start, Math.min(end, text.length));
    return anchor && { ink, anchor };
  }
  const leaf = strokes[0]?.leaf;
  const ink = strokes.flatMap((one) => ('stroke' in one && one.leaf === leaf ? [one.stroke] : []));
  if (leaf === undefined || ink.length === 0) return undefined;
  return { ink, anchor: { type: 'region', leaf, ...regionOfStrokes(ink, ratioOf(leaves, leaf)) } };
}

/** The strokes of a drawing, each with its own place. Inverse of {@link drawingOf}. */
export function placedStrokes({ ink, anchor }: { ink: readonly Stroke[] | null; anchor: Anchor }): PlacedStroke[] {
  if (!ink) return [];
  if (anchor.type === 'region') return ink.map((stroke) => ({ leaf: anchor.leaf, stroke }));
  return anchor.type === 'passage' ? takeApart(ink, anchor.start).map((held) => ({ leaf: -1, held })) : [];
}

/** Whether a stroke lies so near to a place that it is about the same. */
export function isNear(stroke: PlacedStroke, anchor: Anchor, { leaves }: Paper): boolean {
  if ('held' in stroke)
    return (
      anchor.type === 'passage' &&
      stroke.held.start < anchor.end + FAR_IN_TEXT &&
      stroke.held.end > anchor.start - FAR_IN_TEXT
    );
  if (anchor.type !== 'region' || anchor.leaf !== stroke.leaf) return false;
  const box = regionOfStrokes([stroke.stroke], ratioOf(leaves, stroke.leaf));
  const apart = Math.max(
    box.x - anchor.x - anchor.width,
    anchor.x - box.x - box.width,
    box.y - anchor.y - anchor.height,
    anchor.y - box.y - box.height,
  );
  return apart < FAR_ON_LEAF;
}

function ratioOf(leaves: Folio['leaves'], leaf: number): number {
  const one = leaves[leaf];
  return one && 'width' in one && 'height' in one ? one.width / one.height : 1;
}

/** As many strokes as one remark holds. */
export const MOST_STROKES = 400;

/**
 * Strokes as those of a remark about a given place, and those that lie elsewhere. Words of the place may stand before or after
 * the strokes that hang on them.
 */
export function inkAbout(
  anchor: Anchor,
  strokes: readonly PlacedStroke[],
): { ink: Stroke[]; elsewhere: PlacedStroke[] } {
  const ink: Stroke[] = [];
  const elsewhere: PlacedStroke[] = [];
  for (const placed of strokes) {
    const full = ink.length === MOST_STROKES;
    if (!full && 'held' in placed && anchor.type === 'passage')
      ink.push(heldFrom(placed.held.stroke, placed.held.start - anchor.start));
    else if (!full && 'stroke' in placed && anchor.type === 'region' && anchor.leaf === placed.leaf)
      ink.push(placed.stroke);
    else elsewhere.push(placed);
  }
  return { ink, elsewhere };
}

/** Strokes that lie anywhere, as drawings: one for the text and one for each leaf, or more where they are many. */
export function drawingsOf(strokes: readonly PlacedStroke[], paper: Paper): Drawing[] {
  const places = new Map<number, PlacedStroke[]>();
  for (const placed of strokes) {
    const place = 'held' in placed ? -1 : placed.leaf;
    places.set(place, [...(places.get(place) ?? []), placed]);
  }
  return [...places.values()].flatMap((all) =>
    Array.from({ length: Math.ceil(all.length / MOST_STROKES) }, (_, index) =>
      drawingOf(all.slice(index * MOST_STROKES, (index + 1) * MOST_STROKES), paper),
    ).filter((drawing) => drawing !== undefined),
  );
}
