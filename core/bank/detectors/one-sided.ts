import { sure, type Detector } from '../detector.ts';

export const oneSided: Detector = {
  name: 'one-sided',
  says: 'takes a side',
  labels: [
    'counterargument',
    'counter-argument',
    'balance',
    'other side',
    'nuance',
    'one-sided',
    'bias',
    'opinion',
    'argument',
    'perspective',
  ],
  find: ({ text, around }) =>
    sure(
      /\b(?:should|must|ought to|need to|needs to|have to|wrong|right|best|worst|better|i (?:think|believe|feel)|in my (?:opinion|view)|unfair|stupid|terrible|ridiculous)\b/iu.test(
        text,
      ),
    ) * (/\b(?:although|however|on the other hand|but)\b/iu.test(around) ? 0.3 : 0.8),
};
