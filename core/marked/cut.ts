import type { Box } from '../ink/index.ts';

/** A stretch of something tall, from its upper to its lower edge. */
export interface Sheet {
  top: number;
  bottom: number;
}

/**
 * Cuts something tall into sheets, never through a line of words that fits on one; all in the same unit.
 * @param lines of its words, in any order
 * @param tallest a sheet may be
 */
export function cutIntoSheets({ top, bottom }: Sheet, lines: readonly Sheet[], tallest: number): Sheet[] {
  const sheets: Sheet[] = [];
  for (let from = top; from < bottom - 0.5;) {
    const to = Math.min(bottom, from + tallest);
    const cut = lines.filter((line) => line.top < to && line.bottom > to && line.top > from);
    const until = to === bottom ? to : Math.min(to, ...cut.map((line) => line.top));
    sheets.push({ top: from, bottom: until });
    from = until;
  }
  return sheets;
}

/** The middle of a box, from top to bottom. */
export const middleOf = ({ top, bottom }: Pick<Box, 'top' | 'bottom'>): number => (top + bottom) / 2;
