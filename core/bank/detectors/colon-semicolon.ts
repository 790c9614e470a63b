import { sure, type Detector } from '../detector.ts';

export const colonSemicolon: Detector = {
  name: 'colon-semicolon',
  says: 'has a colon or a semicolon',
  labels: ['colon', 'semicolon', 'semi-colon', 'punctuation'],
  find: ({ text }) => sure(/[;:]/u.test(text.replaceAll(/\d:\d|https?:/gu, ''))),
};
