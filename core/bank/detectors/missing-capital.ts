import { beginsLine, sure, type Detector } from '../detector.ts';

export const missingCapital: Detector = {
  name: 'missing-capital',
  says: 'lacks a capital',
  labels: ['capital', 'capitals', 'capital letter', 'capitalisation', 'capitalization', 'proofreading', 'punctuation'],
  find: ({ text, before }) =>
    sure(
      /(?:^|\s)i(?:\s|['’](?:m|ve|d|ll)\b)|[.!?]\s+\p{Ll}\p{L}+/u.test(text) ||
        (before.trim() !== '' && (beginsLine(before) || /[.!?]$/u.test(before.trimEnd())) && /^\p{Ll}/u.test(text)) ||
        /\b(?:monday|tuesday|wednesday|thursday|friday|saturday|sunday|january|february|april|june|july|august|september|october|november|december|english|french|atlantic|europe)\b/u.test(
          text,
        ),
    ),
};
