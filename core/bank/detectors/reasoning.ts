import { sure, type Detector } from '../detector.ts';

export const reasoning: Detector = {
  name: 'reasoning',
  says: 'gives a reason',
  labels: ['reasoning', 'cause', 'explanation', 'explain', 'why', 'argument', 'logic', 'because', 'analysis', 'link'],
  find: ({ text }) =>
    sure(
      /\b(?:because|since|therefore|so that|as a result|thus|hence|which means|this means|the reason|due to|leads? to|caus(?:es|ed)|why|that is why|consequently)\b/iu.test(
        text,
      ),
    ),
};
