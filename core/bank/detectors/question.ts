import { sure, type Detector } from '../detector.ts';

export const question: Detector = {
  name: 'question',
  says: 'asks a question',
  labels: ['question', 'rhetorical', 'rhetorical question', 'ask', 'answer'],
  find: ({ text }) => sure(/\?/u.test(text)),
};
