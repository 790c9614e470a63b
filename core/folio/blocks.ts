/** How a run of characters is set. */
export type Mark = 'bold' | 'italic' | 'underline' | 'strike' | 'superscript' | 'subscript' | 'code';

/** An element of an equation in MathML Core (https://www.w3.org/TR/mathml-core/), with its words as strings. */
export interface MathNode {
  element: string;
  attributes?: Record<string, string> | undefined;
  children: (MathNode | string)[];
}

/** How characters look where the work itself says so, e.g. on a slide: size in points, colour `#rrggbb`. */
export interface Look {
  size?: number | undefined;
  color?: string | undefined;
}

/** Characters of one look. `text` stands exactly as in the file; a line break is `\n`, a tab `\t`. */
export interface Run {
  text: string;
  marks: Mark[];
  link?: string | undefined;
  /** The number of a footnote that is called here. It is numbering, not writing, so such a run has no text. */
  note?: string | undefined;
  /** An equation; `text` holds its characters in the order in which it draws them. */
  math?: MathNode | undefined;
  look?: Look | undefined;
}

export type Align = 'left' | 'center' | 'right';

/** What a block is, if it is not simply a part of the text. */
export type Role = 'quotation' | 'caption';

/** How the lines of a block are set, where its file says so. */
export interface Setting {
  role?: Role | undefined;
  align?: Align | undefined;
  /** Its lines begin at the right. */
  direction?: 'rtl' | undefined;
}

export interface Heading extends Setting {
  type: 'heading';
  /** 1 (highest) to 6. */
  level: number;
  runs: Run[];
  /** Its number, where headings are numbered. Like every numbering it is no part of the text. */
  marker?: string | undefined;
}

export interface Paragraph extends Setting {
  type: 'paragraph';
  runs: Run[];
}

/** One entry of a list. Its marker is numbering, not writing, so it is no part of the text. */
export interface ListItem extends Setting {
  type: 'item';
  /** 0 for the outermost list. */
  depth: number;
  marker: string;
  runs: Run[];
}

export interface TableCell {
  header: boolean;
  /** What it is filled with where the work itself says so, e.g. on a slide: `#rrggbb`. */
  fill?: string | undefined;
  /** How many columns and rows it covers, where that is more than one. */
  columns?: number | undefined;
  rows?: number | undefined;
  blocks: TextBlock[];
}

export interface Table {
  type: 'table';
  /** Which share of its width each column has; they sum up to 1. */
  widths?: number[] | undefined;
  rows: TableCell[][];
}

/** A picture of the work, by its position among the pictures of its file or folio. It has no text of its own. */
export interface Picture {
  type: 'picture';
  picture: number;
  alt: string;
}

export type TextBlock = Heading | Paragraph | ListItem;
export type Block = TextBlock | Table | Picture;

export const isTextBlock = (block: Block): block is TextBlock => block.type !== 'table' && block.type !== 'picture';
