import type { InkTool } from '../ink/index.ts';

export type PlaceOnPage = readonly [x: number, y: number];

/** What stands in a marked file, apart from how a PDF writes it; places are points from the upper left corner of a page. */
export type Mark = {
  page: number;
  by: string;
  at: string;
  colour: string;
  words: string;
  /** Of its remark, on the first of its marks. */
  number?: number | undefined;
} & (
  | { type: 'highlight'; quads: PlaceOnPage[][] }
  | { type: 'box'; box: readonly [number, number, number, number] }
  | { type: 'note'; place: PlaceOnPage }
  | {
      type: 'stroke';
      tool: InkTool;
      width: number;
      trace: PlaceOnPage[];
      outline: PlaceOnPage[];
      lines: PlaceOnPage[][];
    }
  | { type: 'label'; place: PlaceOnPage; size: number; text: string }
);

/** What all marks of one remark say. */
export type AboutMark = Omit<Mark & { type: 'note' }, 'type' | 'place'>;

/** The same remark on another of its marks: its words and its number are there once. */
export const furtherMark = <About extends Pick<AboutMark, 'words' | 'number'>>(about: About): About => ({
  ...about,
  ...{ words: '', number: undefined },
});
