import { drawOnSurface, headOf, outlineOf, type DrawnStroke, type InkTool, type Stroke } from '#core/ink';
import { timelineOf } from '#core/talk';
import { PLAIN_HEX } from '../../contract/ink.ts';
import { keyEntry, KEY_INKS, type MarginKey } from '#core/margin';
import type { Folio, LeafOf } from '#core/folio';
import type { Remark } from '../../contract/remarks.ts';
import type { PlaceOnPage } from './page-space.ts';

/** What stands in a marked file, apart from how a PDF writes it; places are points from the upper left corner of a page. */
export type Mark = { page: number; by: string; at: string; colour: string; words: string } & (
  | { type: 'highlight'; quads: PlaceOnPage[][] }
  | { type: 'box'; box: readonly [number, number, number, number] }
  | { type: 'note'; place: PlaceOnPage }
  | {
      type: 'stroke';
      tool: InkTool;
      width: number;
      trace: PlaceOnPage[];
      outline: PlaceOnPage[];
      lines: PlaceOnPage[][];
    }
  | { type: 'label'; place: PlaceOnPage; size: number; text: string }
);

const NOTE_APART = 26;

/** A page or picture of the file that is marked. */
type Sheet = LeafOf<'page'> | LeafOf<'picture'>;

/** What was said about one file, as marks on its pages. */
export function marksOf(folio: Folio, file: number, remarks: readonly Remark[], key: MarginKey): Mark[] {
  const sheets = folio.leaves.flatMap((leaf, index) =>
    leaf.file === file && (leaf.kind === 'page' || leaf.kind === 'picture') ? [{ leaf, index }] : [],
  );
  let notes = 0;
  return remarks.flatMap((remark): Mark[] => {
    const { name, color } = keyEntry(key, remark.kind);
    const about = { by: remark.author.name, at: remark.madeAt, colour: KEY_INKS[color], words: wordsOf(remark, name) };
    const { anchor } = remark;
    if (anchor.type === 'whole') {
      const note = { ...about, type: 'note' as const, page: 0, place: [12, 12 + NOTE_APART * notes++] as PlaceOnPage };
      return [note, ...talkedOf(remark, sheets, { ...about, words: '' }, key)];
    }
    const at = sheets.findIndex(({ leaf, index }) =>
      anchor.type === 'region'
        ? anchor.leaf === index
        : anchor.type === 'passage' && anchor.start >= leaf.start && anchor.start < leaf.end,
    );
    const sheet = sheets[at]?.leaf;
    if (!sheet) return [];
    const page = { ...about, page: at };
    if (anchor.type === 'passage')
      return sheet.kind === 'page' ? [{ ...page, type: 'highlight', quads: quadsOf(sheet, anchor) }] : [];
    if (anchor.type !== 'region') return [];
    const [width, height] = [sheet.width, sheet.height];
    if (remark.ink) return inkOf(remark, sheet, page, key);
    const [left, top] = [anchor.x * width, anchor.y * height];
    return [{ ...page, type: 'box', box: [left, top, left + anchor.width * width, top + anchor.height * height] }];
  });
}

/** What was drawn in a talk-through and not rubbed out. */
function talkedOf(
  { talk }: Remark,
  sheets: readonly { leaf: Sheet; index: number }[],
  about: Omit<Mark & { type: 'note' }, 'type' | 'place' | 'page'>,
  key: MarginKey,
): Mark[] {
  return timelineOf(talk ?? []).strokes.flatMap(({ placed, until }) => {
    if (until < Infinity || 'held' in placed) return [];
    const page = sheets.findIndex(({ index }) => index === placed.leaf);
    return page < 0 ? [] : [strokeMark(placed.stroke, sheets[page]!.leaf, { ...about, page }, key)];
  });
}

/** All that a remark says, as somebody reads it who cannot hear it. */
function wordsOf({ recording, text, suggestion, link, reaction, replies }: Remark, kind: string): string {
  const said = [
    recording?.transcript?.text,
    text,
    suggestion !== null && (suggestion === '' ? 'Leave this out.' : `Instead: “${suggestion}”`),
    reaction,
    link,
    ...replies.map(
      (reply) => `${reply.author.name}: ${[reply.recording?.transcript?.text, reply.text].filter(Boolean).join('\n')}`,
    ),
  ].filter((one): one is string => typeof one === 'string' && one !== '');
  if (said.length === 0 && recording) said.push('Spoken; nothing is written down yet.');
  return [`${kind}.`, ...said].join(said.length > 1 ? '\n' : ' ');
}

/** Four corners for each line of the passage: the upper ones first, as most readers expect them. */
function quadsOf(leaf: LeafOf<'page'>, { start, end }: { start: number; end: number }): PlaceOnPage[][] {
  let at = leaf.start;
  return leaf.texts.flatMap(({ text, glue, x, y, width, height, angle = 0 }) => {
    const from = at;
    at += text.length + glue.length;
    const [first, last] = [Math.max(start - from, 0), Math.min(end - from, text.length)];
    if (first >= last || text.length === 0) return [];
    const turn = (angle * Math.PI) / 180;
    const corner = (across: number, down: number): PlaceOnPage => [
      x + across * Math.cos(turn) - down * Math.sin(turn),
      y + across * Math.sin(turn) + down * Math.cos(turn),
    ];
    const [left, right] = [(first / text.length) * width, (last / text.length) * width];
    return [[corner(left, 0), corner(right, 0), corner(left, height), corner(right, height)]];
  });
}

type About = Omit<Mark & { type: 'note' }, 'type' | 'place'>;

/** One note for all that was drawn together. */
const inkOf = (remark: Remark, sheet: Sheet, about: About, key: MarginKey): Mark[] =>
  remark.ink!.map((stroke, index) => strokeMark(stroke, sheet, index > 0 ? { ...about, words: '' } : about, key));

function strokeMark(stroke: Stroke, sheet: Sheet, about: About, key: MarginKey): Mark {
  const place = ({ x, y }: { x: number; y: number }): PlaceOnPage => [x, y];
  const drawn = drawOnSurface(stroke, sheet.width);
  const mark = { ...about, colour: PLAIN_HEX[stroke.colour] ?? KEY_INKS[keyEntry(key, stroke.colour).color] };
  if (stroke.tool === 'label')
    return { ...mark, type: 'label', place: place(drawn.points[0]!), size: drawn.width * 8, text: stroke.text ?? '' };
  return {
    ...mark,
    ...{ type: 'stroke', tool: stroke.tool, width: drawn.width, trace: drawn.points.map(place) },
    outline: stroke.tool === 'pen' || stroke.tool === 'highlighter' ? outlineOf(drawn).map(place) : [],
    lines: linesOf(drawn),
  };
}

const ELLIPSE_POINTS = 48;

/** Shapes as the lines they are drawn with. */
function linesOf({ tool, points, width }: DrawnStroke): PlaceOnPage[][] {
  const [from, to] = [points[0]!, points.at(-1)!];
  const line: PlaceOnPage[] = [
    [from.x, from.y],
    [to.x, to.y],
  ];
  if (tool === 'line') return [line];
  if (tool === 'arrow') return [line, headOf(from, to, width).map(({ x, y }): PlaceOnPage => [x, y])];
  if (tool === 'rectangle')
    return [
      [
        [from.x, from.y],
        [to.x, from.y],
        [to.x, to.y],
        [from.x, to.y],
        [from.x, from.y],
      ],
    ];
  if (tool !== 'ellipse') return [];
  const [x, y, rx, ry] = [(from.x + to.x) / 2, (from.y + to.y) / 2, (to.x - from.x) / 2, (to.y - from.y) / 2];
  return [
    Array.from({ length: ELLIPSE_POINTS + 1 }, (_, step): PlaceOnPage => {
      const angle = (step / ELLIPSE_POINTS) * 2 * Math.PI;
      return [x + rx * Math.cos(angle), y + ry * Math.sin(angle)];
    }),
  ];
}
