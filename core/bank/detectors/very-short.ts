import { sure, type Detector } from '../detector.ts';

export const veryShort: Detector = {
  name: 'very-short',
  says: 'is very short',
  labels: [
    'develop',
    'detail',
    'expand',
    'more',
    'elaborate',
    'depth',
    'explain',
    'too short',
    'underdeveloped',
    'say more',
  ],
  find: ({ text, words }) => sure(words.length >= 3 && words.length <= 9 && /[.!?]$/u.test(text)) * 0.7,
};
