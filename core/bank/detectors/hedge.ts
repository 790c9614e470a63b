import { sure, type Detector } from '../detector.ts';
import { count } from '../passage.ts';

const WORDS =
  'maybe|perhaps|might|possibly|probably|seems?|seemed|appears? to|could be|may be|sort of|kind of|somewhat|i guess|i suppose|i think|i feel like|in a way|more or less|presumably|not sure';
const HEDGE = new RegExp(`\\b(?:${WORDS})\\b`, 'giu');
const HEDGE_ONCE = new RegExp(`\\b(?:${WORDS})\\b`, 'iu');

export const hedge: Detector = {
  name: 'hedge',
  says: 'is cautious',
  labels: [
    'hedge',
    'hedging',
    'tentative',
    'cautious',
    'confidence',
    'certainty',
    'modal',
    'commit',
    'vague',
    'too cautious',
    'assertive',
  ],
  find: ({ text }) => Math.min(1, count(text, HEDGE) / 2 + 0.3 * sure(HEDGE_ONCE.test(text))),
};
