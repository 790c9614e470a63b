import { withoutEnds } from '../text/index.ts';
import { frequentWords } from './frequent-words.ts';
import type { ReadPassage } from './passage.ts';
import { counted, type Vector } from './vector.ts';

/** What a word looks like: `A` for capitals, `a` for small letters, `0` for digits, and how its end sounds. */
function shapeOf(word: string): string {
  if (/\d/u.test(word)) return word.replaceAll(/\d+/gu, '0').replaceAll(/\p{L}+/gu, 'a');
  const head = /^\p{Lu}{2}/u.test(word) ? 'AA' : /^\p{Lu}/u.test(word) ? 'A' : 'a';
  return `${head}${Math.min(3, Math.floor(word.length / 4))}`;
}

const ENDINGS = /(?:ing|ed|ly|tion|ment|ness|able|ous|n't|'re|'s|est|er)$/u;

/** How something is written rather than what it says: frequent words, the shapes of words, their endings, punctuation, length. */
export function styleOf({ text, words, sentences, language }: ReadPassage): Vector {
  const frequent = frequentWords(language);
  const written = text.match(/[\p{L}\p{N}][\p{L}\p{N}'’]*/gu) ?? [];
  const features = [
    ...words.filter((word) => frequent.has(word)).map((word) => `word ${word}`),
    ...written.map((word) => `shape ${shapeOf(word)}`),
    ...words.flatMap((word) => ENDINGS.exec(word)?.[0] ?? []).map((ending) => `ending ${ending}`),
    ...(text.match(/[^\p{L}\p{N}\s]/gu) ?? []).map((sign) => `sign ${sign}`),
    `begins ${words[0] ?? ''}`,
    `ends ${endOf(text)}`,
    `long ${Math.min(5, Math.floor(Math.log2(1 + words.length)))}`,
    `sentences ${Math.min(3, sentences.length)}`,
  ];
  return new Map([...counted(features)].map(([name, times]) => [name, 1 + Math.log(times)]));
}

/** The last sign, and the quotation marks and brackets after it. */
function endOf(text: string): string {
  const bare = withoutEnds(text, /["”’)]/u, 'end');
  return text.slice(bare.length - (/[.!?:;,]$/u.test(bare) ? 1 : 0));
}
