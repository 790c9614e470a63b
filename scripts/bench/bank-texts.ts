import { createRequire } from 'node:module';
import type { Findable } from '#core/bank';
import { sentences } from '#core/folio';
import { licence } from './reattach.ts';

/*
 * 10,000 remarks that nobody here wrote: sentences of published licence texts (package spdx-license-list), and a few in Arabic and
 * Japanese of our own. What each query wants is known, since it is made of the words of one of them.
 */
export const MANY = 10_000;

const require = createRequire(import.meta.url);
const names = [...(require('spdx-license-list/simple') as Set<string>)].sort();

const ARABIC = [
  'من أين جاء هذا الرقم؟ اكتب المصدر والسنة.',
  'هذه الجملة طويلة جدا، اقطعها إلى جملتين.',
  'رأيت ما لا يراه غيرك على الشاطئ.',
  'ابدأ الفقرة بالفكرة الرئيسية.',
  'لا تكرر الكلمة نفسها في كل سطر.',
  'قس العمق بالمتر واكتب الوحدة.',
  'ارسم المقياس على الخريطة.',
  'ماذا يقول من لا يوافقك الرأي؟',
];
const JAPANESE = [
  '数字の出典を書いてください。',
  'この文は長すぎます。二つに分けましょう。',
  '海岸の匂いと音も書きましょう。',
  '段落の最初に主題を書きます。',
  '同じ言葉を何度も使わないでください。',
  '深さの単位を必ず付けます。',
  '地図に縮尺を描いてください。',
  '反対の意見にも答えましょう。',
];

/** Characters; longer sentences come in pieces. */
const LONGEST = 300;
/** Three words that can be asked for. */
const WORDS = /(?:\b[a-z]{4,}\b.*){3}/u;

function* licenceSentences(): Generator<string> {
  const seen = new Set<string>();
  for (const name of names) {
    const text = flat(licence(name));
    for (const { start, end } of sentences(text))
      for (let at = start; at < end; at += LONGEST) {
        const piece = text.slice(at, Math.min(end, at + LONGEST)).trim();
        if (!WORDS.test(piece) || seen.has(piece)) continue;
        seen.add(piece);
        yield piece;
      }
  }
}
const flat = (text: string): string => text.replace(/\s+/gu, ' ');

const remarkOf = (id: string, language: string, text: string): Findable => ({
  ...{ id, language, description: '', tags: [] },
  name: text.split(' ').slice(0, 4).join(' ').slice(0, 80),
  transcript: text,
});

export function manyTexts(): Findable[] {
  const others = [...ARABIC.map((text) => ['ar', text]), ...JAPANESE.map((text) => ['ja', text])];
  const found = others.map(([language, text], index) => remarkOf(`other ${index}`, language!, text!));
  for (const text of licenceSentences()) {
    if (found.length === MANY) break;
    found.push(remarkOf(`${found.length}`, 'en', text));
  }
  return found;
}

export interface Query {
  query: string;
  wanted: string;
}

/** A number from 0 to 1 for each, the same each time (a linear congruential generator, Numerical Recipes). */
export function chance(seed: number): () => number {
  let state = seed;
  return () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
}

/** Queries of each sort, made of the rarest words of every so manieth remark: what somebody remembers of it. */
export function queriesOf(remarks: readonly Findable[]): Record<string, Query[]> {
  const counts = new Map<string, number>();
  const wordsOf = (text: string): string[] => text.toLowerCase().match(/[a-z]{4,}/gu) ?? [];
  for (const { transcript } of remarks)
    for (const word of new Set(wordsOf(transcript))) counts.set(word, (counts.get(word) ?? 0) + 1);
  const english = remarks.filter(({ language }) => language === 'en').filter((_, index) => index % 50 === 7);
  const rarest = ({ transcript }: Findable): string[] =>
    [...new Set(wordsOf(transcript))].sort((a, b) => counts.get(a)! - counts.get(b)!).slice(0, 3);
  const each = (make: (word: string, index: number) => string): Query[] =>
    english.map((remark) => ({ query: rarest(remark).map(make).join(' '), wanted: remark.id }));
  const next = chance(3);
  return {
    asWritten: each((word) => word),
    cutShort: each((word) => word.slice(0, Math.max(4, Math.ceil(word.length * 0.6)))),
    typingErrors: each((word, index) => (index === 0 ? mistyped(word, next) : word)),
    otherForms: each(otherForm),
    arabic: inPieces(remarks, 'ar', (text) =>
      text.replace(/[؟.،]/gu, '').split(' ').slice(1, 4).map(withoutArticle).join(' '),
    ),
    japanese: inPieces(remarks, 'ja', (text) => text.slice(1, 5)),
  };
}

const inPieces = (remarks: readonly Findable[], wanted: string, piece: (text: string) => string): Query[] =>
  remarks
    .filter(({ language }) => language === wanted)
    .map(({ id, transcript }) => ({ query: piece(transcript), wanted: id }));

const withoutArticle = (word: string): string => word.replace(/^ال/u, '');

/** One letter is missing, doubled, another one, or changed places with its neighbour. */
function mistyped(word: string, next: () => number): string {
  const at = 1 + Math.floor(next() * (word.length - 2));
  const [before, letter, after] = [word.slice(0, at), word[at]!, word.slice(at + 1)];
  switch (Math.floor(next() * 4)) {
    case 0:
      return before + after;
    case 1:
      return before + letter + letter + after;
    case 2:
      return `${before}e${after}`;
    default:
      return before + (after[0] ?? '') + letter + after.slice(1);
  }
}

/** As it is written elsewhere in a sentence. */
function otherForm(word: string): string {
  if (word.endsWith('ing')) return word.slice(0, -3);
  if (word.endsWith('s')) return word.slice(0, -1);
  if (word.endsWith('e')) return `${word}d`;
  return `${word}s`;
}
