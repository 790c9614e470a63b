import type { Line } from '../../contract/bank-file.ts';
import type { FileLine, FileRemark } from './read.ts';

/** What the bank has already, as far as it tells two remarks apart. */
export interface Known {
  id: string;
  words: string;
  /** Of its sound; null where it has none. */
  seconds: number | null;
  tags: readonly string[];
}

export type Planned =
  | (Line & { fate: 'add'; remark: FileRemark })
  | (Line & { fate: 'merge'; into: string; tags: string[] })
  | (Line & { fate: 'known' | 'refuse' });

/** Seconds by which the same sound may differ when it comes in another container. */
const SAME_LENGTH = 0.05;
const MOST_TAGS = 20;

/**
 * What would come of each line: a duplicate has the same id, or says the same in a sound as long.
 * @param foreign ids that are taken by somebody else: under them nothing can be kept
 */
export function planOf(
  lines: readonly FileLine[],
  known: readonly Known[],
  foreign: ReadonlySet<string>,
  newId: () => string,
): Planned[] {
  const byId = new Map(known.map((one) => [one.id, one]));
  const byWords = new Map<string, Known[]>();
  const note = (one: Known): void => void byWords.set(one.words, [...(byWords.get(one.words) ?? []), one]);
  known.forEach(note);
  return lines.map((one): Planned => {
    const { line, name } = one;
    if ('refused' in one) return { line, name, fate: 'refuse', why: one.refused };
    const { remark } = one;
    const words = wordsOf(remark);
    const seconds = remark.sound?.seconds ?? null;
    const same = byId.get(remark.id) ?? byWords.get(words)?.find((other) => sameLength(other.seconds, seconds));
    if (same) return again(one, same, remark.content.tags);
    // The next line may say the same.
    note({ id: remark.id, words, seconds, tags: remark.content.tags });
    const why = remark.sound ? 'new, with its sound' : 'new, in writing';
    return { line, name, fate: 'add', why, remark: foreign.has(remark.id) ? { ...remark, id: newId() } : remark };
  });
}

const again = ({ line, name }: FileLine, { id, tags: own }: Known, tags: readonly string[]): Planned => {
  const more = tags.filter((tag) => !own.includes(tag));
  if (more.length === 0) return { line, name, fate: 'known', why: 'is in your bank already' };
  const all = [...own, ...more].slice(0, MOST_TAGS);
  return {
    line,
    name,
    fate: 'merge',
    why: `is in your bank already; gets the tags ${more.join(', ')}`,
    into: id,
    tags: all,
  };
};

export const wordsOf = ({ content, transcript }: Pick<FileRemark, 'content' | 'transcript'>): string =>
  comparable(
    [content.text, content.suggestion, content.reaction, content.link, transcript?.text].filter(Boolean).join(' '),
  );
export const comparable = (text: string): string => text.toLowerCase().replaceAll(/\s+/gu, ' ').trim();

const sameLength = (a: number | null, b: number | null): boolean =>
  a === null || b === null ? a === b : Math.abs(a - b) < SAME_LENGTH;
