import type { Span } from '#core/audio';
import { shiftWords, textOfWords, type Transcript, type Word } from './transcript.ts';

/** What is heard of one recording, and from when on in the joined one; in seconds. */
export interface Heard {
  transcript: Transcript;
  from: Span;
  at: number;
}

/**
 * The words of recordings that were joined, at their new times. Where one of them has no word times, the text alone is known.
 * @param parts in the order in which they are heard; the language is that of the last
 */
export function joinedTranscript(parts: readonly Heard[]): Transcript {
  const timed = parts.every(({ transcript }) => transcript.words.length > 0);
  const last = parts.at(-1)!.transcript;
  return {
    language: last.language,
    text: timed ? parts.map(textIn).join(' ').trim() : untimedText(parts),
    words: timed
      ? parts.flatMap(({ at, from, ...part }) =>
          shiftWords(wordsIn({ ...part, from }).map(within(from)), at - from.start),
        )
      : [],
    source: 'bank',
    engine: '',
    approximate: parts.some(({ transcript }) => transcript.approximate),
    read: parts.every(({ transcript }) => transcript.read),
  };
}

/** A word belongs where its middle is heard. */
const wordsIn = ({ transcript, from }: Pick<Heard, 'transcript' | 'from'>): Word[] =>
  transcript.words.filter(({ start, end }) => (start + end) / 2 >= from.start && (start + end) / 2 < from.end);

/** What is taken for the beginning of a word may be trimmed silence. */
const within =
  ({ start, end }: Span) =>
  (word: Word): Word => ({ ...word, start: Math.max(start, word.start), end: Math.min(end, word.end) });

/** As it is written, where all of it is heard: words alone lose its lines. */
function textIn(part: Heard): string {
  const words = wordsIn(part);
  return words.length === part.transcript.words.length ? part.transcript.text : textOfWords(words);
}

const untimedText = (parts: readonly Heard[]): string =>
  [...new Set(parts.map(({ transcript }) => transcript))]
    .map(({ text }) => text)
    .join(' ')
    .trim();
