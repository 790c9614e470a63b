import { sure, type Detector } from '../detector.ts';

const EXAMPLE =
  /\b(?:for example|for instance|such as|e\.\s?g\.|one (?:such|example)|an example|namely|to illustrate|like when|imagine)\b/iu;

export const example: Detector = {
  name: 'example',
  says: 'gives an example',
  labels: ['example', 'illustration', 'illustrate', 'evidence', 'detail', 'instance'],
  find: ({ text }) => sure(EXAMPLE.test(text)),
};
