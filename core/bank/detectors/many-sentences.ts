import { sure, type Detector } from '../detector.ts';

export const manySentences: Detector = {
  name: 'many-sentences',
  says: 'is a long stretch',
  labels: [
    'paragraph',
    'paragraphs',
    'paragraphing',
    'structure',
    'length',
    'split',
    'one idea',
    'topic sentence',
    'organisation',
    'organization',
  ],
  find: ({ words, sentences }) => sure(sentences.length >= 4 || words.length > 70),
};
