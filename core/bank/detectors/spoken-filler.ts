import { sure, type Detector } from '../detector.ts';

export const spokenFiller: Detector = {
  name: 'spoken-filler',
  says: 'has words that only fill a pause',
  labels: ['filler', 'fillers', 'pace', 'delivery', 'um', 'hesitation', 'speaking', 'fluency'],
  find: ({ text }) => sure(/\b(?:um+|uh+|er+m?|hmm+|you know|i mean|sort of like|like,)\b/iu.test(text)),
};
