import type { Word } from '#core/transcript';

interface Phrase {
  start: number;
  end: number;
}

/**
 * When each word of a text is said: between two pauses of the synthesiser, the time is shared out by the letters of the words.
 * @param segments what `flite -psdur` prints: `phone:end …` in seconds, with `pau` for a pause
 */
export function timedWords(text: string, segments: string): Word[] {
  const phrases = phrasesOf(segments);
  const written = text.split(/(?<=[.,:;?!])\s+/);
  // Where the pauses are not where the stops are, the whole is one phrase.
  if (written.length !== phrases.length) return shareOut(text, { start: phrases[0]!.start, end: phrases.at(-1)!.end });
  return written.flatMap((phrase, index) => shareOut(phrase, phrases[index]!));
}

function phrasesOf(segments: string): Phrase[] {
  const phrases: Phrase[] = [];
  let last = 0;
  let open: Phrase | undefined;
  for (const [, phone, seconds] of segments.matchAll(/(\S+):([\d.]+)/g)) {
    if (phone === 'pau') open = undefined;
    else if (open) open.end = Number(seconds);
    else phrases.push((open = { start: last, end: Number(seconds) }));
    last = Number(seconds);
  }
  return phrases;
}

function shareOut(phrase: string, { start, end }: Phrase): Word[] {
  const words = phrase.split(/\s+/);
  const letters = words.reduce((sum, word) => sum + word.length, 0);
  let at = start;
  return words.map((word) => {
    const from = at;
    at += ((end - start) * word.length) / letters;
    return { word, start: rounded(from), end: rounded(at) };
  });
}

/** Seconds to the millisecond. */
export const rounded = (seconds: number): number => Math.round(seconds * 1000) / 1000;
