import { isTextBlock, type Block, type TextBlock } from './blocks.ts';

/** The text of one block, without the `\n` that ends it. */
export const blockText = (block: TextBlock): string => block.runs.map((run) => run.text).join('');

/** All text blocks in reading order: the cells of a table row by row. */
export function textBlocks(blocks: readonly Block[]): TextBlock[] {
  return blocks.flatMap((block) => {
    if (isTextBlock(block)) return [block];
    if (block.type === 'table') return block.rows.flat().flatMap((cell) => cell.blocks);
    return [];
  });
}

/** The canonical text of blocks: characters as they stand in the file, never normalised, `\n` after each block. */
export const canonicalText = (blocks: readonly Block[]): string =>
  textBlocks(blocks)
    .map((block) => `${blockText(block)}\n`)
    .join('');

/**
 * Where each text block starts in the canonical text, as a UTF-16 offset.
 * @param from where the first of them starts
 */
export function blockStarts(blocks: readonly Block[], from = 0): Map<TextBlock, number> {
  const starts = new Map<TextBlock, number>();
  let at = from;
  for (const block of textBlocks(blocks)) {
    starts.set(block, at);
    at += blockText(block).length + 1;
  }
  return starts;
}

/** Words as a person counts them: runs of characters between white space that hold a letter or a figure. */
export const countWords = (text: string): number =>
  text.split(/\s+/u).filter((word) => /[\p{L}\p{N}]/u.test(word)).length;
