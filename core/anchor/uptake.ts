/** A stretch of two passages that are compared: what stayed, what was struck, what is new. */
export interface WordChange {
  type: 'kept' | 'struck' | 'new';
  text: string;
}

const PARTS = /[\p{L}\p{N}\p{M}]+(?:['’‐‑-][\p{L}\p{N}\p{M}]+)*|\s+|[^\s\p{L}\p{N}\p{M}]/gu;

/** Beyond this the passages are shown as struck and new as a whole. */
const MAX_CELLS = 4_000_000;

/**
 * What a student changed in a passage, word by word: the longest common subsequence of words, signs and white space
 * (Wagner & Fischer 1974). Kept and struck together are the old passage, kept and new together the new one, to the letter.
 */
export function wordChanges(before: string, after: string): WordChange[] {
  const old = before.match(PARTS) ?? [];
  const next = after.match(PARTS) ?? [];
  if (old.length * next.length > MAX_CELLS) return joined([change('struck', before), change('new', after)]);
  const width = next.length + 1;
  const best = new Uint32Array((old.length + 1) * width);
  for (let i = old.length - 1; i >= 0; i--)
    for (let j = next.length - 1; j >= 0; j--)
      best[i * width + j] =
        old[i] === next[j]
          ? best[(i + 1) * width + j + 1]! + worth(old[i]!)
          : Math.max(best[(i + 1) * width + j]!, best[i * width + j + 1]!);
  const changes: WordChange[] = [];
  let [i, j] = [0, 0];
  while (i < old.length || j < next.length) {
    if (i < old.length && j < next.length && old[i] === next[j]) {
      changes.push(change('kept', old[i++]!));
      j++;
    } else if (j >= next.length || (i < old.length && best[(i + 1) * width + j]! >= best[i * width + j + 1]!))
      changes.push(change('struck', old[i++]!));
    else changes.push(change('new', next[j++]!));
  }
  return joined(changes);
}

/** Words count for more than the spaces and signs between them. */
const worth = (part: string): number => (/[\p{L}\p{N}]/u.test(part) ? 4 : 1);

const change = (type: WordChange['type'], text: string): WordChange => ({ type, text });

/** Neighbours of one type as one, and a lone space between two changes as part of them, so that it reads in phrases. */
function joined(changes: WordChange[]): WordChange[] {
  const phrases: WordChange[] = [];
  let [struck, fresh] = ['', ''];
  const flush = (): void => {
    if (struck) phrases.push(change('struck', struck));
    if (fresh) phrases.push(change('new', fresh));
    [struck, fresh] = ['', ''];
  };
  changes.forEach(({ type, text }, index) => {
    const between =
      /^\s+$/.test(text) && (struck || fresh) && changes[index + 1] && changes[index + 1]!.type !== 'kept';
    if (type !== 'new' && (type === 'struck' || between)) struck += text;
    if (type !== 'struck' && (type === 'new' || between)) fresh += text;
    if (type !== 'kept' || between) return;
    flush();
    const last = phrases.at(-1);
    if (last?.type === 'kept') last.text += text;
    else phrases.push(change('kept', text));
  });
  flush();
  return phrases;
}
