import { max } from 'd3-array';
import { type Detector } from '../detector.ts';

const longest = (sentences: readonly string[]): number =>
  max(sentences, (sentence) => sentence.split(/\s+/u).length) ?? 0;

export const longSentence: Detector = {
  name: 'long-sentence',
  says: 'has a very long sentence',
  labels: [
    'long sentence',
    'sentence',
    'sentence length',
    'run-on',
    'split',
    'shorten',
    'concise',
    'clarity',
    'readability',
    'too long',
    'break up',
  ],
  find: ({ sentences }) => Math.min(1, Math.max(0, (longest(sentences) - 24) / 12)),
};
