import { sure, type Detector } from '../detector.ts';

export const technicalTerm: Detector = {
  name: 'technical-term',
  says: 'uses a term of the trade',
  labels: [
    'definition',
    'define',
    'term',
    'terminology',
    'vocabulary',
    'jargon',
    'technical',
    'key term',
    'subject words',
    'glossary',
  ],
  find: ({ text, words }) =>
    Math.max(
      sure(/\b(?:is|are) (?:defined as|called|known as|the (?:term|name) for)\b|\bmeans\b/iu.test(text)),
      Math.min(1, words.filter((word) => word.length >= 11).length / 2),
    ),
};
