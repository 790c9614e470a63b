import { sure, type Detector } from '../detector.ts';

/** After a comma a subject and its verb follow, and what stands before is a sentence already. */
const SPLICE =
  /\b(?:is|are|was|were|has|have|had|goes|went|comes|came|\w+ed|\w+s)\b[^.;:!?,]*,\s+(?:it|they|he|she|we|i|you|this|that|these|there|then|(?:the|a|my|our|its|their)\s+\w+(?:\s\w+)?)\s+(?:is|are|was|were|has|have|had|will|would|can|could|does|did|do|comes?|came|goes|went|gets?|got|\w+ed)\b/iu;
const OPENS_WITH_CLAUSE =
  /^\s*(?:when|while|if|although|though|because|since|as|after|before|once|until|whenever|where|in|on|at|by|with|for|during)\b/iu;

export const commaSplice: Detector = {
  name: 'comma-splice',
  says: 'joins two sentences with a comma',
  labels: ['comma splice', 'comma', 'splice', 'punctuation', 'run-on', 'semicolon', 'full stop', 'sentence boundary'],
  find: ({ sentences }) =>
    sure(sentences.some((sentence) => SPLICE.test(sentence) && !OPENS_WITH_CLAUSE.test(sentence))),
};
