import { sure, type Detector } from '../detector.ts';

const ALL =
  /\b(?:always|never|every(?:one|body|thing|where| \w+)?|all (?:of|the|people|\w+s)|no ?(?:one|body)|nobody|nothing|none|completely|totally|entirely|impossible|only|the (?:best|worst|most)|in any case|without exception|forever|the whole world)\b/iu;

export const sweeping: Detector = {
  name: 'sweeping',
  says: 'says it of all, always or never',
  labels: [
    'generalisation',
    'generalization',
    'sweeping',
    'overclaim',
    'overgeneralisation',
    'absolute',
    'exception',
    'qualify',
    'too strong',
    'nuance',
    'exaggeration',
  ],
  find: ({ text }) => sure(ALL.test(text)),
};
