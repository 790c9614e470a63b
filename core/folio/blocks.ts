/** How a run of characters is set. */
export type Mark = 'bold' | 'italic' | 'underline' | 'strike' | 'superscript' | 'subscript';

/** Characters of one look. `text` stands exactly as in the file; a line break is `\n`, a tab `\t`. */
export interface Run {
  text: string;
  marks: Mark[];
  link?: string | undefined;
  /** The number of a footnote that is called here. It is numbering, not writing, so such a run has no text. */
  note?: string | undefined;
}

export interface Heading {
  type: 'heading';
  /** 1 (highest) to 6. */
  level: number;
  runs: Run[];
}

export interface Paragraph {
  type: 'paragraph';
  runs: Run[];
}

/** One entry of a list. Its marker is numbering, not writing, so it is no part of the text. */
export interface ListItem {
  type: 'item';
  /** 0 for the outermost list. */
  depth: number;
  marker: string;
  runs: Run[];
}

export interface TableCell {
  header: boolean;
  blocks: TextBlock[];
}

export interface Table {
  type: 'table';
  rows: TableCell[][];
}

/** A picture of the work, by its position among the pictures of the folio. It has no text of its own. */
export interface Picture {
  type: 'picture';
  picture: number;
  alt: string;
}

export type TextBlock = Heading | Paragraph | ListItem;
export type Block = TextBlock | Table | Picture;

export const isTextBlock = (block: Block): block is TextBlock => block.type !== 'table' && block.type !== 'picture';
