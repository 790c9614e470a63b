import { sure, type Detector } from '../detector.ts';

export const noReasoning: Detector = {
  name: 'no-reasoning',
  says: 'says what happens and not why',
  labels: [
    'explain',
    'why',
    'reasoning',
    'explanation',
    'analysis',
    'because',
    'develop',
    'so what',
    'depth',
    'elaborate',
    'expand',
  ],
  find: ({ around, words }) =>
    sure(
      words.length >= 6 &&
        !/\b(?:because|since|therefore|so|thus|hence|means|reason|due|why|leads?|causes?|as a result)\b/iu.test(around),
    ) * 0.4,
};
