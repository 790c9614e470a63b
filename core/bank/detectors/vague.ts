import { type Detector } from '../detector.ts';
import { count } from '../passage.ts';

const VAGUE =
  /\b(?:things?|stuff|something|somehow|somewhere|sometimes|some (?:kind|sort|way)|some|many|various|several|certain|a few|a lot|lots|good|bad|nice|great|interesting|important|big|small|different|etc|and so on|aspects?|factors?|areas?|ways?|very|quite|rather|fairly|in general|over time|a while|soon|recently|a bit|more or less)\b/giu;

export const vague: Detector = {
  name: 'vague',
  says: 'is vague',
  labels: [
    'vague',
    'precise',
    'precision',
    'specific',
    'word choice',
    'detail',
    'concrete',
    'general',
    'exact',
    'be specific',
  ],
  find: ({ text }) => Math.min(1, count(text, VAGUE) / 1.5),
};
