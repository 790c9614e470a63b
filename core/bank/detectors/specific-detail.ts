import { sure, type Detector } from '../detector.ts';
import { count } from '../passage.ts';

export const specificDetail: Detector = {
  name: 'specific-detail',
  says: 'is full of detail',
  labels: ['detail', 'specific', 'observation', 'concrete', 'precise', 'evidence', 'close observation', 'noticing'],
  find: ({ text }) =>
    Math.min(
      1,
      count(text, /\b\d+\b|(?<=\p{Ll} )\p{Lu}\p{Ll}+/gu) / 3 +
        0.4 *
          sure(
            /\b(?:two|three|four|five|six|seven|eight|nine|ten|dozen|hundred|left|right|north|south|east|west|morning|noon|inch|edge|orange|red|yellow|green|blue|black|white|brown)\b/iu.test(
              text,
            ),
          ),
    ),
};
