import { withoutEnds } from '../text/index.ts';
import { folded, spoken, tokens } from './token.ts';
import { isDoubtful, type Word } from './transcript.ts';

/** Words as they are written where the recording is about, by how they sound in letters. */
export type Vocabulary = ReadonlyMap<string, string>;

/** Letters that a doubtful word has at the least to be taken for a word of the work that differs in one. */
const LONG = 5;

/**
 * How names and the words of a work are written. A word counts as a name where it has a capital inside of a sentence; the
 * first way of writing it counts.
 * @param names people of the class, in full
 */
export function vocabulary(names: readonly string[], text: string): Vocabulary {
  const words = new Map<string, string>();
  const add = (word: string): void => {
    const bare = withoutEnds(word, /[^\p{L}\p{N}]/u).replace(/[’']s$/u, '');
    const key = folded(bare);
    if (key !== '' && !words.has(key)) words.set(key, bare);
  };
  for (const name of names) for (const part of name.split(/\s+/u)) add(part);
  let begins = true;
  for (const { text: word } of tokens(text)) {
    if (!begins && /\p{Lu}/u.test(word) && spoken(word).length > 1) add(word);
    else if (/\p{L}[^\p{L}\s]\p{L}|[^\p{ASCII}’“”‘]/u.test(word) && /\p{L}{3}/u.test(word)) add(word);
    begins = /[.!?:…][”’"')\]]*$/u.test(word);
  }
  return words;
}

/** Words spelled as they are written in the vocabulary; a doubtful one also where it differs in a single letter. */
export function spelled(words: readonly Word[], written: Vocabulary): Word[] {
  return words.map((word) => {
    const bare = withoutEnds(word.word, /[^\p{L}\p{N}]/u);
    const from = word.word.indexOf(bare);
    const [before, after] = [word.word.slice(0, from), word.word.slice(from + bare.length)];
    const owner = /[’']s$/u.exec(bare)?.[0] ?? '';
    const core = bare.slice(0, bare.length - owner.length);
    const key = folded(core);
    const known = written.get(key) ?? (isDoubtful(word) ? nearly(key, written) : undefined);
    return known === undefined ? word : { ...word, word: `${before}${keepCapital(core, known)}${owner}${after}` };
  });
}

const keepCapital = (heard: string, known: string): string =>
  /^\p{Lu}/u.test(heard) ? known.replace(/^\p{L}/u, (first) => first.toUpperCase()) : known;

function nearly(key: string, written: Vocabulary): string | undefined {
  if (key.length < LONG) return undefined;
  for (const [candidate, word] of written) if (candidate.length >= LONG && oneApart(key, candidate)) return word;
  return undefined;
}

/** Whether two words differ in one letter that is another, missing or too much. */
export function oneApart(a: string, b: string): boolean {
  const [short, long] = a.length <= b.length ? [a, b] : [b, a];
  if (long.length - short.length > 1) return false;
  let at = 0;
  while (at < short.length && short[at] === long[at]) at++;
  return short.slice(short.length === long.length ? at + 1 : at) === long.slice(at + 1);
}
