import { sure, type Detector } from '../detector.ts';

export const abbreviation: Detector = {
  name: 'abbreviation',
  says: 'has an abbreviation',
  labels: ['abbreviation', 'acronym', 'define', 'spell out', 'initials'],
  find: ({ text }) =>
    sure(
      /\b\p{Lu}{2,5}s?\b/u.test(text.replaceAll(/\b(?:[AP]M|I{2,3}|IV|VI{0,3}|OK|TV|UK|US|USA|BC|AD)\b/gu, '')) &&
        text !== text.toUpperCase(),
    ),
};
