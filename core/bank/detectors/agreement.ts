import { sure, type Detector } from '../detector.ts';

const ASTRAY =
  /\b(?:they|we|you|these|those|people|birds|waves|tides|rocks|plants|animals|shells|numbers|results|results?s|children|men|women|many|both)\s+(?:was|is|has|does|goes|comes|makes|lives|shows)\b|\b(?:it|he|she|this|that|everyone|everybody|each|the (?:tide|water|sea|wave|bird|shore|author|writer|graph|table|rock))\s+(?:were|are|have|do|go|come|make|live|show)\b|\bthere (?:is|was) (?:many|several|two|three|four|five|lots|a lot of \w+s|some \w+s)\b|\b(?:a|one) \w+s (?:is|are|was|were)\b/iu;

export const agreement: Detector = {
  name: 'agreement',
  says: 'has a verb that does not fit its subject',
  labels: ['agreement', 'subject-verb', 'grammar', 'singular', 'plural', 'verb form'],
  find: ({ text }) => sure(ASTRAY.test(text)),
};
