import type { Block } from './blocks.ts';
import { canonicalText } from './text.ts';

/** One page, slide, picture, answer or sound of a folio. `start` and `end` are UTF-16 offsets into the canonical text. */
export interface Leaf {
  label: string;
  kind: 'text';
  start: number;
  end: number;
}

/** A submitted work as read into leaves that can be shown and anchored. */
export interface Folio {
  format: 'docx';
  title: string;
  /** The canonical text: the one text that reader, screen, anchors and exports share. */
  text: string;
  leaves: Leaf[];
  blocks: Block[];
}

/** The folio of a flowing text: one leaf that holds all of it. */
export function flowingFolio(format: Folio['format'], blocks: Block[], fallbackTitle: string): Folio {
  const text = canonicalText(blocks);
  const leaf: Leaf = { label: 'Text', kind: 'text', start: 0, end: text.length };
  return { format, title: titleOf(blocks) ?? fallbackTitle, text, leaves: [leaf], blocks };
}

function titleOf(blocks: Block[]): string | undefined {
  const highest = Math.min(...blocks.map((block) => (block.type === 'heading' ? block.level : Infinity)));
  const heading = blocks.find((block) => block.type === 'heading' && block.level === highest);
  const title = heading?.type === 'heading' ? heading.runs.map((run) => run.text).join('') : '';
  return title.replace(/\s+/g, ' ').trim() || undefined;
}
