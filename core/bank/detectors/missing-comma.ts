import { sure, type Detector } from '../detector.ts';

const OPENING =
  /^(?:(?:when|while|if|although|though|because|since|after|before|once|until|whenever|as soon as)\s[^,]{15,}|(?:however|therefore|moreover|furthermore|nevertheless|for example|for instance|in conclusion|in addition|finally|unfortunately)\s[^,]+)$/iu;

export const missingComma: Detector = {
  name: 'missing-comma',
  says: 'begins with a clause and has no comma behind it',
  labels: ['comma', 'commas', 'punctuation', 'clause'],
  find: ({ sentences }) => sure(sentences.some((sentence) => OPENING.test(sentence))),
};
