import { sure, type Detector } from '../detector.ts';

const VERB =
  /\b(?:am|is|are|was|were|be|been|has|have|had|do|does|did|will|would|can|could|may|might|must|shall|should|\w{2,}(?:ed|ing|es|ns|ts|ks|ls|ps|rs|ws|ys)|go|goes|went|see|saw|come|came|make|made|take|took|know|knew|think|say|said|get|got|give|gave|find|found|lie|lay|stand|stood|run|ran|rise|rose|fall|fell|grow|grew|feel|felt|keep|kept|live|show|need|want|look|turn|hold|held|bring|brought|leave|left|begin|began|become|became|let|put|seem|mean|eat|ate)\b|['’](?:s|re|m|ve|ll|d)\b/iu;
const hasVerb = (sentence: string): boolean => VERB.test(sentence);
/** A clause that begins with one of these and has no other beside it. */
const SUBORDINATE =
  /^(?:because|which|although|though|whereas|such as|especially|when|while|if|unless|who|that)\b[^,;]*[.!?]$/iu;

export const fragment: Detector = {
  name: 'fragment',
  says: 'is no whole sentence',
  labels: [
    'fragment',
    'incomplete sentence',
    'sentence fragment',
    'incomplete',
    'verb',
    'sentence structure',
    'full sentence',
  ],
  find: ({ sentences }) =>
    sure(sentences.some((sentence) => /[.!?]$/u.test(sentence) && (SUBORDINATE.test(sentence) || !hasVerb(sentence)))),
};
