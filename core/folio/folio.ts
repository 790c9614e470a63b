import { min } from 'd3-array';
import { isTextBlock, type Block, type TextBlock } from './blocks.ts';
import { leafText, type Leaf, type NewLeaf } from './leaf.ts';

/** What a file of a work is, decided by its bytes. `answers` are typed in the app and have no file. */
export type Format =
  | 'docx'
  | 'odt'
  | 'pdf'
  | 'pptx'
  | 'odp'
  | 'markdown'
  | 'text'
  | 'html'
  | 'epub'
  | 'png'
  | 'jpeg'
  | 'webp'
  | 'gif'
  | 'tiff'
  | 'heic'
  | 'wav'
  | 'mp3'
  | 'ogg'
  | 'webm'
  | 'mp4'
  | 'flac'
  | 'aac'
  | 'csv'
  | 'xlsx'
  | 'ods'
  | 'answers';

export interface FolioFile {
  name: string;
  format: Format;
}

/** One file as a reader gives it. Pictures of blocks and leaves are counted from 0 within the file. */
export interface ReadFile extends FolioFile {
  title: string;
  /** BCP 47 tag, where the file names its language. */
  language?: string | undefined;
  leaves: NewLeaf[];
}

/** A submitted work as read into leaves that can be shown and anchored. */
export interface Folio {
  title: string;
  language?: string | undefined;
  files: FolioFile[];
  /** The canonical text: the one text that reader, screen, anchors and exports share. */
  text: string;
  leaves: Leaf[];
}

/**
 * The folio of a work of one or more files: their leaves one after the other, their texts as one.
 * @param pictures how many pictures each file brought along, in the same order
 */
export function folioOf(files: readonly ReadFile[], pictures: readonly number[] = []): Folio {
  let at = 0;
  let before = 0;
  const leaves = files.flatMap((file, index) => {
    const shifted = before === 0 ? file.leaves : file.leaves.map((leaf) => withPictures(leaf, before));
    before += pictures[index] ?? 0;
    return shifted.map((leaf): Leaf => {
      const start = at;
      at += leafText(leaf).length;
      return { ...leaf, file: index, start, end: at };
    });
  });
  const language = files.find((file) => file.language !== undefined)?.language;
  return {
    title: files[0]?.title ?? '',
    ...(language !== undefined && { language }),
    files: files.map(({ name, format }) => ({ name, format })),
    text: leaves.map(leafText).join(''),
    leaves,
  };
}

function withPictures(leaf: NewLeaf, by: number): NewLeaf {
  const shifted = (block: Block): Block =>
    block.type === 'picture' ? { ...block, picture: block.picture + by } : block;
  if (leaf.kind === 'text') return { ...leaf, blocks: leaf.blocks.map(shifted) };
  if (leaf.kind === 'picture') return { ...leaf, picture: leaf.picture + by };
  if (leaf.kind === 'slide')
    return {
      ...leaf,
      shapes: leaf.shapes.map((shape) =>
        shape.picture === undefined ? shape : { ...shape, picture: shape.picture + by },
      ),
    };
  return leaf;
}

/** How much somebody has to read: UTF-16 units and lines of the canonical text. */
export function bulkOf(leaves: readonly NewLeaf[]): { characters: number; lines: number } {
  let characters = 0;
  let lines = 0;
  for (const leaf of leaves) {
    const text = leafText(leaf);
    characters += text.length;
    for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) lines++;
  }
  return { characters, lines };
}

/** The words of the highest heading of a text, if it has one. */
export function titleOf(blocks: readonly Block[]): string | undefined {
  const highest = min(blocks, (block) => (block.type === 'heading' ? block.level : Infinity));
  const heading = blocks.find((block) => block.type === 'heading' && block.level === highest);
  const title = heading && isTextBlock(heading) ? wordsOf(heading) : '';
  return title.replace(/\s+/g, ' ').trim() || undefined;
}

const wordsOf = (block: TextBlock): string => block.runs.map((run) => run.text).join('');

/** The leaf in which an offset of the canonical text lies; the last one for its very end. */
export const leafAt = (leaves: readonly Leaf[], offset: number): number => {
  const index = leaves.findIndex(({ start, end }) => offset >= start && offset < end);
  return index < 0 ? leaves.findLastIndex(({ end }) => end === offset) : index;
};
