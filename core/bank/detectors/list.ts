import { sure, type Detector } from '../detector.ts';
import { count } from '../passage.ts';

export const list: Detector = {
  name: 'list',
  says: 'is a list',
  labels: ['list', 'parallel', 'parallelism', 'bullet', 'bullets', 'structure', 'order', 'enumeration'],
  find: ({ text }) => sure(/^[ \t]*(?:[-•*–]|\d+[.)])\s/mu.test(text) || count(text, /[,;]/gu) >= 4),
};
