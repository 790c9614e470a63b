import { max } from 'd3-array';
import { type Detector } from '../detector.ts';
import { counted } from '../vector.ts';

const most = (stems: readonly string[]): number => max(counted(stems.filter(({ length }) => length > 2)).values()) ?? 0;

export const repeatedWord: Detector = {
  name: 'repeated-word',
  says: 'uses the same word again and again',
  labels: ['repetition', 'repeated', 'repetitive', 'word choice', 'vocabulary', 'variety', 'synonym', 'repeat'],
  find: ({ stems }) => Math.min(1, Math.max(0, most(stems) - 1.5) / 1.5),
};
