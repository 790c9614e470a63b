import { heardAt, spokenAt, type Span } from '#core/audio';
import type { Word } from './transcript.ts';

/**
 * Words of one rendition of a recording, at their times in another. Words that are not heard any more are left out.
 * @param before what the words' rendition keeps of the original; null where it is all of it
 * @param after the same of the new rendition
 */
export function retimed(words: readonly Word[], before: readonly Span[] | null, after: readonly Span[]): Word[] {
  const spoken = (heard: number): number => (before ? spokenAt(before, heard) : heard);
  return words.flatMap((word) => {
    const { start, end } = word;
    const [from, to] = [spoken(start), spoken(end)];
    const middle = heardAt(after, (from + to) / 2);
    if (middle === undefined) return [];
    return [{ ...word, start: heardAt(after, from) ?? middle, end: heardAt(after, to) ?? middle }];
  });
}
