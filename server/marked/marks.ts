import { drawOnSurface, type Stroke } from '#core/ink';
import {
  furtherMark,
  numbered,
  readableWords,
  strokeMark,
  type AboutMark,
  type Mark,
  type PlaceOnPage,
} from '#core/marked';
import { timelineOf } from '#core/talk';
import { PLAIN_HEX } from '../../contract/ink.ts';
import { keyEntry, KEY_INKS, type MarginKey } from '#core/margin';
import type { Folio, LeafOf } from '#core/folio';
import type { Remark } from '../../contract/remarks.ts';
import type { PassageLine, UnplacedMark } from './place-passages.ts';

const NOTE_APART = 26;

/** A page or picture of the file that is marked. */
type Sheet = LeafOf<'page'> | LeafOf<'picture'>;

/** What was said about one file, as marks on its pages. */
export function marksOf(folio: Folio, file: number, remarks: readonly Remark[], key: MarginKey): UnplacedMark[] {
  const sheets = folio.leaves.flatMap((leaf, index) =>
    leaf.file === file && (leaf.kind === 'page' || leaf.kind === 'picture') ? [{ leaf, index }] : [],
  );
  let notes = 0;
  return numbered(remarks, folio.leaves).flatMap(({ remark, number }): UnplacedMark[] => {
    const { name, color } = keyEntry(key, remark.kind);
    const about = {
      by: remark.author.name,
      at: remark.madeAt,
      colour: KEY_INKS[color],
      words: readableWords(remark, name),
      number,
    };
    const { anchor } = remark;
    if (anchor.type === 'whole') {
      const note = { ...about, type: 'note' as const, page: 0, place: [12, 12 + NOTE_APART * notes++] as PlaceOnPage };
      return [note, ...talkedOf(remark, sheets, furtherMark(about), key)];
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
      return sheet.kind === 'page' ? [{ ...page, type: 'passage', lines: linesOf(sheet, anchor) }] : [];
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

/** The parts of the lines of a page that a passage covers. */
function linesOf(leaf: LeafOf<'page'>, { start, end }: { start: number; end: number }): PassageLine[] {
  let at = leaf.start;
  return leaf.texts.flatMap(({ glue, ...line }) => {
    const offset = at;
    at += line.text.length + glue.length;
    const [from, to] = [Math.max(start - offset, 0), Math.min(end - offset, line.text.length)];
    return from < to ? [{ ...line, from, to }] : [];
  });
}

/** One note for all that was drawn together. */
const inkOf = (remark: Remark, sheet: Sheet, about: AboutMark, key: MarginKey): Mark[] =>
  remark.ink!.map((stroke, index) => onSheet(stroke, sheet, index > 0 ? furtherMark(about) : about, key));

const onSheet = (stroke: Stroke, sheet: Sheet, about: AboutMark, key: MarginKey): Mark => {
  const colour = PLAIN_HEX[stroke.colour] ?? KEY_INKS[keyEntry(key, stroke.colour).color];
  return strokeMark(drawOnSurface(stroke, sheet.width), { ...about, colour });
};
