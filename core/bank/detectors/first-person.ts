import { type Detector } from '../detector.ts';

const FIRST = new Set([
  'i',
  'me',
  'my',
  'mine',
  'myself',
  'we',
  'us',
  'our',
  'ours',
  "i'm",
  "i've",
  "i'd",
  "we're",
  "i'll",
]);

export const firstPerson: Detector = {
  name: 'first-person',
  says: 'speaks of “I” or “we”',
  labels: [
    'first person',
    'personal',
    'voice',
    'pronoun',
    'formal',
    'objective',
    'register',
    'impersonal',
    'own experience',
    'point of view',
  ],
  find: ({ words }) => Math.min(1, words.filter((word) => FIRST.has(word)).length / 2),
};
