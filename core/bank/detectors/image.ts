import { sure, type Detector } from '../detector.ts';

const IMAGE =
  /\b(?:like (?:a|an|the|some|old|little|wet|small)\b|as \w+ as\b|as if\b|as though\b)|\b(?:whisper|roar|glitter|shimmer|sigh|breath|dance|sing|sang|sleep|slept|smell|smelt|taste|cold|silver|golden|dark|soft|wet|bright|grey|pale|crunch|hiss|glow|gleam)\w*\b/iu;

export const image: Detector = {
  name: 'image',
  says: 'draws a picture with words',
  labels: [
    'imagery',
    'simile',
    'metaphor',
    'description',
    'descriptive',
    'figurative',
    'image',
    'vivid',
    'sensory',
    'language choice',
    'showing',
  ],
  find: ({ text }) => sure(IMAGE.test(text)),
};
