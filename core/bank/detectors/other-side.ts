import { sure, type Detector } from '../detector.ts';

export const otherSide: Detector = {
  name: 'other-side',
  says: 'weighs another side',
  labels: [
    'counterargument',
    'counter-argument',
    'balance',
    'other side',
    'nuance',
    'concession',
    'perspective',
    'evaluation',
    'weigh',
    'alternative',
  ],
  find: ({ text }) =>
    sure(
      /\b(?:although|though|on the other hand|however|some (?:people |would |may |might )?(?:argue|say|claim|think|believe)|others|critics|despite|whereas|while (?:some|it|many)|nevertheless|even so|admittedly|yet)\b/iu.test(
        text,
      ),
    ),
};
