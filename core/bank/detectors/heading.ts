import { beginsLine, sure, type Detector } from '../detector.ts';

const aloneInLine = (before: string, after: string): boolean => beginsLine(before) && /^[^\S\n]*(?:\n|$)/u.test(after);

export const heading: Detector = {
  name: 'heading',
  says: 'looks like a heading',
  labels: [
    'heading',
    'headings',
    'title',
    'structure',
    'organisation',
    'organization',
    'section',
    'layout',
    'subheading',
  ],
  find: ({ text, before, after, words, sentences }) =>
    sure(
      words.length > 0 &&
        words.length <= 9 &&
        sentences.length === 1 &&
        !/[.!?;:,]$/u.test(text) &&
        /^[\p{Lu}\d]/u.test(text) &&
        aloneInLine(before, after),
    ),
};
