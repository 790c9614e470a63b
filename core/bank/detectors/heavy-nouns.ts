import { sure, type Detector } from '../detector.ts';
import { count } from '../passage.ts';

export const heavyNouns: Detector = {
  name: 'heavy-nouns',
  says: 'piles up nouns',
  labels: ['nominalisation', 'nominalization', 'verbs', 'abstract', 'heavy', 'plain', 'noun', 'style', 'readability'],
  find: ({ text }) => sure(count(text, /\b\p{L}{3,}(?:tion|ment|ness|ity|ance|ence|ism)s?\b/giu) >= 2),
};
