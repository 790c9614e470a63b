import { sure, type Detector } from '../detector.ts';

/** A number with decimals, or one that is the result of something, with no word or sign of a unit behind it. */
const BARE =
  /(?:\b(?:is|was|of|about|to|at|by|=|reached|measured|rose|fell|drops?|gives?|get|got)\s*[-−]?\d+(?:[.,]\d+)?|[-−]?\b\d+[.,]\d+)(?=\s*(?:$|[.;,)!?](?!\d)|\s(?:and|but|so|at|in|on|by|then|which|when|after|before|from|to)\b))/iu;

export const numberWithoutUnit: Detector = {
  name: 'number-without-unit',
  says: 'has a number without a unit',
  labels: ['unit', 'units', 'number', 'measurement', 'quantity', 'figures'],
  find: ({ text }) => sure(BARE.test(text)),
};
