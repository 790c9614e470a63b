let context: CanvasRenderingContext2D | null | undefined;
const known = new Map<string, number>();

/**
 * How wide the interface's plain letters are, in their own height, so that words over a drawn page can be stretched to the
 * width that they have there. Counted by letters where nothing can be measured.
 */
export function letterWidth(text: string): number {
  const found = known.get(text);
  if (found !== undefined) return found;
  context ??= typeof OffscreenCanvas === 'undefined' ? null : (new OffscreenCanvas(1, 1).getContext('2d') as never);
  if (context && !context.font.startsWith('100px')) context.font = '100px sans-serif';
  const width = context ? context.measureText(text).width / 100 : text.length / 2;
  if (known.size > 20_000) known.clear();
  known.set(text, width);
  return width;
}
