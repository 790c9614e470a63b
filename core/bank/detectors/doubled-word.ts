import { sure, type Detector } from '../detector.ts';

export const doubledWord: Detector = {
  name: 'doubled-word',
  says: 'has the same word twice in a row',
  labels: ['typo', 'proofreading', 'proofread', 'double word', 'careless', 'read aloud'],
  find: ({ text }) => sure(/\b(\p{L}+)\s+\1\b/iu.test(text)),
};
