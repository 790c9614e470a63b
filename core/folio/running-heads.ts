import { max, min } from 'd3-array';
import type { PlacedText } from './leaf.ts';

/** A line that stands at the top or bottom of so many pages, and of so large a share of them, is no part of their sentences. */
const OFTEN = { pages: 3, share: 0.5 };

/**
 * The pages of a file with the lines at their top and bottom that come again and again, but for their numbers, parted from what
 * stands beside them.
 */
export function partRunningHeads(pages: readonly PlacedText[][]): PlacedText[][] {
  return (['top', 'bottom'] as const).reduce<PlacedText[][]>((parted, edge) => partEdge(parted, edge), [...pages]);
}

function partEdge(pages: PlacedText[][], edge: 'top' | 'bottom'): PlacedText[][] {
  const lines = pages.map((texts) => edgeLine(texts, edge));
  const times = new Map<string, number>();
  for (const { words } of lines) times.set(words, (times.get(words) ?? 0) + 1);
  const isOften = (words: string): boolean => {
    const count = times.get(words)!;
    return words !== '' && count >= OFTEN.pages && count > OFTEN.share * pages.length;
  };
  return pages.map((texts, page) => {
    const { words, places } = lines[page]!;
    if (!isOften(words)) return texts;
    const ends = new Set([min(places)! - 1, max(places)!]);
    return texts.map((text, at) => (ends.has(at) ? { ...text, glue: '\n' } : text));
  });
}

/** The highest or lowest line of a page: where its parts are, and its words without numbers. */
function edgeLine(texts: readonly PlacedText[], edge: 'top' | 'bottom'): { words: string; places: number[] } {
  const upright = texts.flatMap((text, at) => (text.angle === undefined ? [{ ...text, at }] : []));
  if (upright.length === 0) return { words: '', places: [] };
  const middle = ({ y, height }: PlacedText): number => y + height / 2;
  const far = edge === 'top' ? min(upright, middle)! : max(upright, middle)!;
  const line = upright.filter((text) => Math.abs(middle(text) - far) < text.height / 2);
  const words = line
    .map(({ text }) => text)
    .join(' ')
    .replace(/\p{N}+/gu, '#')
    .trim();
  return { words, places: line.map(({ at }) => at) };
}
