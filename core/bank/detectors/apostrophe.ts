import { sure, type Detector } from '../detector.ts';

const ASTRAY =
  /\b(?:dont|doesnt|didnt|cant|wont|isnt|arent|wasnt|werent|couldnt|wouldnt|shouldnt|hasnt|havent|im|ive|thats|theyre|youre|lets us|whats|theres)\b|\bit['’]s (?:own|shell|way|edge|colour|color|name|place|surface|banks?|mouth|head|legs?|wings?|beak|nest)\b|\bits (?:a|an|the|not|been|going|very|too|just|really|so)\b|\b(?:the|these|those|many|two|three|some|all) \w+['’]s (?:are|were|have|go|come|live|fly|grow)\b|\b(?:1[89]|20)\d0['’]s\b|\b(?:boats?|birds?|tides?|waters?|writers?|authors?|towns?|rivers?|sea)s (?:edge|nest|shell|mouth|name|bank|house|view|point|words|colou?r)\b/iu;

export const apostrophe: Detector = {
  name: 'apostrophe',
  says: 'has an apostrophe that is missing or too much',
  labels: ['apostrophe', 'apostrophes', 'possessive', 'punctuation', 'its', 'contraction'],
  find: ({ text }) => sure(ASTRAY.test(text)),
};
