import { itemStarts, leafText, type Folio, type Leaf, type LeafOf } from '#core/folio';
import { passageAnchor, type Anchor, type CellsAnchor } from './anchor.ts';
import { reattacher, type ReattachStatus } from './reattach.ts';
import { Lexicon, wordsOf } from './tokens.ts';

/** A folio with a name for the bytes of each file and picture that is the same where the bytes are, e.g. a hash. */
export interface NamedFolio {
  folio: Folio;
  files: readonly string[];
  pictures: readonly string[];
}

/** Where an anchor of one version belongs in the next. */
export interface Reattachment {
  status: ReattachStatus;
  /** Absent where it is lost. */
  anchor?: Anchor | undefined;
  confidence: number;
}

const LOST: Reattachment = { status: 'lost', confidence: 0.9 };

/** Pages and slides whose words are so much alike are versions of each other. */
const ALIKE = 0.8;

/**
 * Finds anchors of any type in the next version of a work. Words are followed wherever they went; a box, a stretch or an
 * answer stays with the page, picture, recording or question that it belongs to, and is lost with it.
 */
export function folioReattacher(old: NamedFolio, next: NamedFolio): (anchor: Anchor) => Reattachment {
  const findPassage = reattacher(old.folio.text, next.folio.text, {
    old: itemStarts(old.folio.leaves),
    next: itemStarts(next.folio.leaves),
  });
  const oldKeys = old.folio.leaves.map((leaf) => leafKey(leaf, old));
  const nextKeys = next.folio.leaves.map((leaf) => leafKey(leaf, next));

  return (anchor) => {
    switch (anchor.type) {
      case 'whole':
        return { status: 'same', anchor, confidence: 1 };
      case 'passage': {
        const { exact, prefix, suffix } = anchor.quote;
        const { status, place, confidence } = findPassage({
          start: anchor.start,
          end: anchor.end,
          exact,
          prefix,
          suffix,
        });
        const found = place && passageAnchor(next.folio.text, place.start, place.end);
        return found ? { status, anchor: found, confidence } : { ...LOST, confidence };
      }
      case 'answer':
        return answer(anchor.question);
      default:
        return onLeaf(anchor);
    }
  };

  function answer(question: string): Reattachment {
    const find = ({ leaves }: Folio) =>
      leaves.find((leaf): leaf is LeafOf<'answer'> => leaf.kind === 'answer' && leaf.question === question);
    const [before, after] = [find(old.folio), find(next.folio)];
    if (!before || !after) return LOST;
    const same = leafText(before) === leafText(after);
    return { status: same ? 'same' : 'changed', anchor: { type: 'answer', question }, confidence: 1 };
  }

  function onLeaf(anchor: Extract<Anchor, { leaf: number }>): Reattachment {
    const leaf = old.folio.leaves[anchor.leaf]!;
    const key = oldKeys[anchor.leaf]!;
    const equal = nextKeys.flatMap((candidate, index) => (candidate === key ? [index] : []));
    const index = equal.includes(anchor.leaf) ? anchor.leaf : equal.length === 1 ? equal[0] : undefined;
    if (index !== undefined) {
      const status = index === anchor.leaf ? 'same' : 'moved';
      return { status, anchor: { ...anchor, leaf: index }, confidence: 1 };
    }
    if (anchor.type === 'cells') return cells(anchor, leaf as LeafOf<'sheet'>);
    if (anchor.type === 'region' && (leaf.kind === 'page' || leaf.kind === 'slide')) {
      const like = mostAlike(leaf, next.folio.leaves);
      if (like) return { status: 'changed', anchor: { ...anchor, leaf: like.index }, confidence: like.dice / 2 };
    }
    return LOST;
  }

  function cells(anchor: CellsAnchor, sheet: LeafOf<'sheet'>): Reattachment {
    const candidates = next.folio.leaves.flatMap((leaf, index) =>
      leaf.kind === 'sheet' && leaf.label === sheet.label ? [{ leaf, index }] : [],
    );
    if (candidates.length !== 1) return LOST;
    const [{ leaf, index }] = candidates as [{ leaf: LeafOf<'sheet'>; index: number }];
    const height = anchor.bottom - anchor.top;
    const wanted = rangeText(sheet, anchor);
    const places = leaf.rows.flatMap((_, top) => {
      const moved = { ...anchor, leaf: index, top, bottom: top + height };
      return rangeText(leaf, moved) === wanted ? [moved] : [];
    });
    const here = places.find(({ top }) => top === anchor.top);
    if (here) return { status: 'same', anchor: here, confidence: 1 };
    if (places.length === 1 && wanted.trim() !== '') return { status: 'moved', anchor: places[0]!, confidence: 0.8 };
    return relabelled(anchor, sheet, leaf, index);
  }
}

/** Cells whose values changed are known by the first cell of their rows, as long as that stands only once. */
function relabelled(anchor: CellsAnchor, old: LeafOf<'sheet'>, next: LeafOf<'sheet'>, leaf: number): Reattachment {
  const name = old.rows[anchor.top]?.[0]?.text ?? '';
  const header = (sheet: LeafOf<'sheet'>): string | undefined => sheet.rows[0]?.[anchor.left]?.text;
  const rows = next.rows.flatMap((row, index) => (row[0]?.text === name ? [index] : []));
  const bottom = (rows[0] ?? 0) + anchor.bottom - anchor.top;
  if (
    name === '' ||
    anchor.left === 0 ||
    rows.length !== 1 ||
    header(old) !== header(next) ||
    bottom >= next.rows.length
  )
    return LOST;
  return { status: 'changed', anchor: { ...anchor, leaf, top: rows[0]!, bottom }, confidence: 0.7 };
}

const rangeText = ({ rows }: LeafOf<'sheet'>, { top, left, bottom, right }: CellsAnchor): string =>
  rows
    .slice(top, bottom + 1)
    .map((row) =>
      row
        .slice(left, right + 1)
        .map(({ text }) => text)
        .join('\t'),
    )
    .join('\n');

/** What a leaf shows, as one string. */
function leafKey(leaf: Leaf, { files, pictures }: NamedFolio): string {
  if (leaf.kind === 'sound') return `sound ${files[leaf.file]}`;
  if (leaf.kind === 'picture') return `picture ${pictures[leaf.picture]}`;
  // A page without words, e.g. a scan, is known by its file alone.
  if (leaf.kind === 'page' && leaf.texts.length === 0) return `page ${files[leaf.file]} ${leaf.page}`;
  if (leaf.kind === 'page') return JSON.stringify([leaf.width, leaf.height, leaf.texts]);
  if (leaf.kind === 'slide')
    return JSON.stringify([
      leaf.width,
      leaf.height,
      leaf.shapes.map((shape) =>
        shape.picture === undefined ? shape : { ...shape, picture: pictures[shape.picture] },
      ),
    ]);
  return JSON.stringify([leaf.kind, leaf.label, leafText(leaf)]);
}

/** The one leaf of the same kind and size that says nearly the same, by Dice's coefficient over its words. */
function mostAlike(
  leaf: LeafOf<'page' | 'slide'>,
  leaves: readonly Leaf[],
): { index: number; dice: number } | undefined {
  const lexicon = new Lexicon();
  const own = new Set(wordsOf(leafText(leaf), lexicon).ids);
  const found = leaves
    .flatMap((other, index) => {
      if (other.kind !== leaf.kind || other.width !== leaf.width || other.height !== leaf.height) return [];
      const words = new Set(wordsOf(leafText(other), lexicon).ids);
      const shared = [...words].filter((id) => own.has(id)).length;
      return [{ index, dice: (2 * shared) / Math.max(1, own.size + words.size) }];
    })
    .filter(({ dice }) => dice >= ALIKE)
    .sort((a, b) => b.dice - a.dice);
  return found.length > 1 && found[1]!.dice === found[0]!.dice ? undefined : found[0];
}
