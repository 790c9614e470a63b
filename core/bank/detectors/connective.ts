import { sure, type Detector } from '../detector.ts';

const LINKS =
  /(?:^|[.!?]\s+)(?:however|therefore|moreover|furthermore|in addition|firstly?|secondly?|thirdly?|finally|next|then|also|consequently|as a result|on the other hand|in contrast|similarly|meanwhile|nevertheless|thus|hence|besides|another|likewise|in conclusion)\b/iu;

export const connective: Detector = {
  name: 'connective',
  says: 'is linked to what stands before',
  labels: ['transition', 'connective', 'linking', 'flow', 'cohesion', 'signpost', 'link', 'connection', 'coherence'],
  find: ({ text }) => sure(LINKS.test(text)),
};
