import { sure, type Detector } from '../detector.ts';

const SOURCE =
  /\([^()]*\b(?:1[5-9]|20)\d\d[a-z]?(?:[,:][^()]*)?\)|\[\d+\]|https?:|\bdoi\b|\baccording to\b|\bet al\b|\bibid\b|[¹²³⁴-⁹]|\((?:p{1,2}\.|fig\.|see )[^()]*\)|\b(?:writes|wrote|argues|reports|notes) (?:that|in)\b/iu;

export const namesSource = (text: string): boolean => SOURCE.test(text);

export const sourceNamed: Detector = {
  name: 'source-named',
  says: 'names a source',
  labels: [
    'source',
    'citation',
    'cite',
    'reference',
    'referencing',
    'format',
    'bibliography',
    'in-text',
    'attribution',
  ],
  find: ({ text }) => sure(namesSource(text)),
};
