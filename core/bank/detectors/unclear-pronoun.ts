import { sure, type Detector } from '../detector.ts';

export const unclearPronoun: Detector = {
  name: 'unclear-pronoun',
  says: 'begins with “this”, “it” or “they”',
  labels: [
    'pronoun',
    'reference',
    'unclear',
    'ambiguous',
    'antecedent',
    'clarity',
    'what does this refer to',
    'vague reference',
  ],
  find: ({ sentences }) =>
    sure(
      sentences.some((sentence) =>
        /^(?:this|that|it|they|these|those|which)\s+(?:is|are|was|were|has|have|had|makes?|made|shows?|means?|can|could|will|would|does|did|also|then|all|caus\w+|\w+ed|\w+s)\b/iu.test(
          sentence,
        ),
      ),
    ),
};
