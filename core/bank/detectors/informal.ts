import { type Detector } from '../detector.ts';
import { count } from '../passage.ts';

const TALK =
  /\b(?:\w+n['’]t|\w+['’](?:re|ve|ll|d|m)|it['’]s|that['’]s|there['’]s|what['’]s|let['’]s|gonna|wanna|gotta|kinda|sorta|yeah|ok(?:ay)?|kids?|guys?|stuff|a lot|lots|loads|tons|really|super|pretty (?:much|good|bad|big)|totally|literally|basically|honestly|anyway|awesome|cool|crazy|huge|massive|get|got|well,|like,|you know|i mean|bunch|bits?|mess(?:ed)?|weird|dead (?:good|boring))\b|!/giu;

export const informal: Detector = {
  name: 'informal',
  says: 'sounds like talk',
  labels: [
    'informal',
    'register',
    'formal',
    'tone',
    'colloquial',
    'slang',
    'contraction',
    'contractions',
    'style',
    'academic',
    'chatty',
  ],
  find: ({ text }) => Math.min(1, count(text, TALK) / 1.5),
};
