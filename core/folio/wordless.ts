import type { Folio } from './folio.ts';

/** The pages and pictures of a work in which no word can be chosen, by their numbers from 0: scans and photographs. */
export const wordlessLeaves = ({ leaves, text }: Pick<Folio, 'leaves' | 'text'>): number[] =>
  leaves.flatMap(({ kind, start, end }, index) =>
    (kind === 'page' || kind === 'picture') && text.slice(start, end).trim() === '' ? [index] : [],
  );
