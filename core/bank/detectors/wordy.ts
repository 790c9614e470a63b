import { type Detector } from '../detector.ts';
import { count } from '../passage.ts';

const PADDED =
  /\b(?:in order to|due to the fact that|the fact that|it is (?:important|interesting|worth|clear|obvious) (?:to|that|noting)|it (?:should|can|must) be (?:noted|said|seen|argued)|at this (?:point|moment) in time|in the event that|for the purpose of|with regard to|in terms of|as (?:i|we|has been) (?:said|stated|mentioned)|each and every|first and foremost|past history|end result|final outcome|future plans|basic(?:ally)?|actually|in my (?:own )?(?:personal )?opinion|personally|what i mean is|needless to say|there (?:is|are|was|were) (?:a|an|many|some)?\s?\w* (?:that|which|who)|a (?:large|great) (?:number|amount) of|the reason (?:why|for this) is|very|really|the process of|completely (?:full|empty|finished|surrounded))\b/giu;

export const wordy: Detector = {
  name: 'wordy',
  says: 'takes many words',
  labels: [
    'wordy',
    'wordiness',
    'concise',
    'filler',
    'padding',
    'redundant',
    'cut',
    'economy',
    'tighten',
    'unnecessary',
  ],
  find: ({ text }) => Math.min(1, count(text, PADDED) / 1.2),
};
