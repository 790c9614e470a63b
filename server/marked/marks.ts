import { drawOnSurface, type Stroke } from '#core/ink';
import { readableWords, strokeMark, type AboutMark, type Mark, type PlaceOnPage } from '#core/marked';
import { timelineOf } from '#core/talk';
import { PLAIN_HEX } from '../../contract/ink.ts';
import { keyEntry, KEY_INKS, type MarginKey } from '#core/margin';
import type { Folio, LeafOf } from '#core/folio';
import type { Remark } from '../../contract/remarks.ts';

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
    const about = {
      by: remark.author.name,
      at: remark.madeAt,
      colour: KEY_INKS[color],
      words: readableWords(remark, name),
    };
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
  about: Omit<AboutMark, 'page'>,
  key: MarginKey,
): Mark[] {
  return timelineOf(talk ?? []).strokes.flatMap(({ placed, until }) => {
    if (until < Infinity || 'held' in placed) return [];
    const page = sheets.findIndex(({ index }) => index === placed.leaf);
    return page < 0 ? [] : [onSheet(placed.stroke, sheets[page]!.leaf, { ...about, page }, key)];
  });
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

/** One note for all that was drawn together. */
const inkOf = (remark: Remark, sheet: Sheet, about: AboutMark, key: MarginKey): Mark[] =>
  remark.ink!.map((stroke, index) => onSheet(stroke, sheet, index > 0 ? { ...about, words: '' } : about, key));

const onSheet = (stroke: Stroke, sheet: Sheet, about: AboutMark, key: MarginKey): Mark => {
  const colour = PLAIN_HEX[stroke.colour] ?? KEY_INKS[keyEntry(key, stroke.colour).color];
  return strokeMark(drawOnSurface(stroke, sheet.width), { ...about, colour });
};
