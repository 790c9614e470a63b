import { changedWords } from './changed.ts';
import { spoken, tokens } from './token.ts';
import type { Word } from './transcript.ts';

/**
 * The words of a changed text at their times: those that stayed keep what was known of them, new ones share the time that is
 * free between their neighbours by the length of their letters. A word that replaces another takes its time.
 * @param duration of the recording, in seconds
 */
export function carried(before: readonly Word[], text: string, duration: number): Word[] {
  const now = tokens(text);
  const pairs = changedWords(
    before.map(({ word }) => spoken(word)),
    now.map((token) => spoken(token.text)),
  );
  const known = new Map<number, Word>();
  for (const [old, index] of pairs) if (old !== undefined && index !== undefined) known.set(index, before[old]!);
  const words: Word[] = [];
  for (let at = 0; at < now.length;) {
    const old = known.get(at);
    if (old) {
      const word = now[at]!.text;
      const same = spoken(word) === spoken(old.word);
      words.push(same ? { ...old, word } : { word, start: old.start, end: old.end });
      at++;
      continue;
    }
    let end = at;
    while (end < now.length && !known.has(end)) end++;
    const free = { start: words.at(-1)?.end ?? 0, end: known.get(end)?.start ?? duration };
    const fresh = now.slice(at, end).map((token) => token.text);
    for (const word of shared(fresh, free)) words.push(word);
    at = end;
  }
  return words;
}

/** Words over a stretch of time, each as long as its letters are many. */
export function shared(words: readonly string[], { start, end }: { start: number; end: number }): Word[] {
  const weights = words.map((word) => Math.max(1, spoken(word).length));
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const length = Math.max(0, end - start);
  let done = 0;
  return words.map((word, index) => {
    const from = start + (length * done) / total;
    done += weights[index]!;
    return { word, start: from, end: start + (length * done) / total };
  });
}
