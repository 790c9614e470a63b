import { sure, type Detector } from '../detector.ts';

const firstWord = (sentence: string): string => /[\p{L}']+/u.exec(sentence)?.[0].toLowerCase() ?? '';

const beginsAlike = (sentences: readonly string[]): boolean =>
  sentences.some((sentence, index) => index > 0 && firstWord(sentence) === firstWord(sentences[index - 1]!));

export const sameBeginnings: Detector = {
  name: 'same-beginnings',
  says: 'has sentences that begin alike',
  labels: ['sentence openings', 'sentence variety', 'variety', 'repetition', 'rhythm', 'sentence starts', 'monotonous'],
  find: ({ sentences }) => sure(beginsAlike(sentences)),
};
