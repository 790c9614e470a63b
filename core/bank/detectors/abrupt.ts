import { beginsLine, sure, type Detector } from '../detector.ts';

const LINK =
  /^(?:however|therefore|moreover|furthermore|in addition|first|second|third|final|next|then|also|consequently|as a|on the other|in contrast|similarly|meanwhile|nevertheless|thus|hence|besides|another|likewise|this|these|that|such|but|and|so|yet|because)\b/iu;

export const abrupt: Detector = {
  name: 'abrupt',
  says: 'begins without a link to what stands before',
  labels: [
    'transition',
    'linking',
    'flow',
    'cohesion',
    'signpost',
    'link',
    'connection',
    'coherence',
    'jump',
    'paragraph',
  ],
  find: ({ text, before, words, sentences }) =>
    sure(beginsLine(before) && before.trim() !== '' && sentences.length >= 1 && words.length > 9 && !LINK.test(text)) *
    0.6,
};
