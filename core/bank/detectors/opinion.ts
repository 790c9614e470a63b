import { sure, type Detector } from '../detector.ts';

export const opinion: Detector = {
  name: 'opinion',
  says: 'gives an opinion',
  labels: ['opinion', 'subjective', 'personal', 'evidence', 'assertion', 'bias', 'view'],
  find: ({ text }) =>
    sure(
      /\b(?:i (?:think|believe|feel|like|love|hate|prefer)|in my (?:opinion|view)|beautiful|ugly|boring|amazing|wonderful|lovely|horrible|favou?rite|sad(?:ly)?|unfortunately|luckily|best|worst)\b/iu.test(
        text,
      ),
    ),
};
