import { readFileSync } from 'node:fs';
import { z } from 'zod';
import { fromRoot } from '../root.ts';
import { primary, type Translator } from './translator.ts';

const Phrases = z.array(z.record(z.string(), z.string()));
const phrases = Phrases.parse(JSON.parse(readFileSync(fromRoot('server/translation/phrases.json'), 'utf8')));
const languages = new Set(phrases.flatMap((phrase) => Object.keys(phrase)));

const bare = (sentence: string): string =>
  sentence
    .trim()
    .toLowerCase()
    .replaceAll(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** The stand-in that ships with the app: it knows some sentences by heart, and refuses all others. */
export const phraseList: Translator = {
  name: 'Phrase list',
  textGoesTo: 'this server',
  knows: (source, target) => languages.has(primary(source)) && languages.has(primary(target)),
  translate(text, source, target) {
    const sentences = [...new Intl.Segmenter(source, { granularity: 'sentence' }).segment(text)].map(
      ({ segment }) => segment,
    );
    const found = sentences
      .filter((sentence) => bare(sentence) !== '')
      .map((sentence) => phrases.find((phrase) => bare(phrase[primary(source)] ?? '') === bare(sentence)))
      .map((phrase) => phrase?.[primary(target)]);
    const all = found.length > 0 && found.every((sentence) => sentence !== undefined);
    return Promise.resolve(all ? found.join(' ') : undefined);
  },
};
